import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Context } from './context';
import { asJson, notForeign, ownHosts, ownPageOnly } from './door';
import { errorHandler, unknownPath } from './errors';
import { fileRoutes } from './routes/files';
import { logRoutes } from './routes/log';
import { rowRoutes } from './routes/rows';
import { sheetRoutes } from './routes/sheets';
import { storesRoutes } from './routes/stores';
import { systemRoutes } from './routes/system';
import { yardRoutes } from './routes/yard';

/**
 * The whole server as one Express app. `webDir` is the built interface; null serves the API alone. `demo` answers for the
 * demo yard beside it, where there is one.
 */
export function makeApp(
  context: Context,
  options: { log: Logger; webDir: string | null; demo?: { path: string; handler: RequestHandler } },
): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(
    pinoHttp({
      logger: options.log,
      genReqId: (_req, res) => {
        const id = randomUUID();
        res.setHeader('X-Request-Id', id);
        return id;
      },
      customLogLevel: (_req, res, error) =>
        error || res.statusCode >= 500 ? 'error' : res.statusCode >= 400 ? 'warn' : 'debug',
      serializers: {
        req: (req: { id: string; method: string; url: string }) => ({ id: req.id, method: req.method, url: req.url }),
        res: (res: { statusCode: number }) => ({ status: res.statusCode }),
      },
    }),
  );
  app.set('etag', false);
  app.use(ownHosts(context.hosts), ownPageOnly);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      // A yard's own address has no certificate: nothing may insist on https.
      strictTransportSecurity: false,
      crossOriginOpenerPolicy: false,
      originAgentCluster: false,
    }),
  );
  app.use(compression());
  if (options.demo) app.use(options.demo.path, options.demo.handler);

  const api = express.Router();
  api.use(notForeign, systemRoutes(context), fileRoutes(context));
  api.use(asJson, express.json({ limit: '1mb' }));
  api.use(yardRoutes(context), rowRoutes(context), sheetRoutes(context), storesRoutes(context), logRoutes(context));
  api.use(unknownPath);
  app.use(
    '/api',
    (_req, res, next) => {
      res.setHeader('Cache-Control', 'no-store');
      next();
    },
    api,
  );

  const { webDir } = options;
  if (webDir !== null && existsSync(join(webDir, 'index.html'))) {
    app.use('/assets', express.static(join(webDir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
    app.use(express.static(webDir, { index: false, maxAge: 0 }));
    // Deep links reload into the interface, which finds its own place.
    app.get('/{*path}', (_req, res) => {
      res.sendFile(join(webDir, 'index.html'), { headers: { 'Cache-Control': 'no-cache' } });
    });
  }
  app.use(errorHandler(options.log));
  return app;
}
