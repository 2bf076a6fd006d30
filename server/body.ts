import type { IncomingMessage } from 'node:http';
import type { Request, Response } from 'express';

/** The body of a request as it comes; unlike the request itself it may be given up, and the rest is thrown away. */
export async function* bodyOf(req: IncomingMessage): AsyncGenerator<Buffer> {
  for await (const chunk of req.iterator({ destroyOnReturn: false })) yield chunk as Buffer;
}

/** What is still to come of a body that nobody wants is let go for so long, and so much of it; then the line is cut. */
const UNWANTED_MS = 10_000;
const UNWANTED_BYTES = 256 * 1024 * 1024;

/**
 * A request that was answered before all of it came: the connection ends with the answer. The rest is read and thrown away
 * for a while, so that whoever still sends comes to hear the answer. [P: RFC 9112, 9.6]
 */
export function letGoOfBody(req: Request, res: Response): void {
  if (req.complete !== false || req.readableEnded) return;
  if (!res.headersSent) res.setHeader('Connection', 'close');
  const { socket } = req;
  let bytes = 0;
  const cut = () => socket.destroy();
  const timer = setTimeout(cut, UNWANTED_MS).unref();
  req.on('data', (chunk: Buffer) => {
    bytes += chunk.length;
    if (bytes > UNWANTED_BYTES) cut();
  });
  req.once('close', () => clearTimeout(timer));
  req.resume();
}
