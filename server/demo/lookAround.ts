import type { RequestHandler } from 'express';
import type { Logger } from 'pino';
import { makeApp } from '../app';
import type { Clock } from '../clock';
import { beginHistory, openYard, type Yard } from '../keep/yard';
import { Summaries } from '../summaries';
import { seedDemo } from './seed';

/**
 * The demo yard beside a yard of one's own, to look around in: in memory, made when it is first asked for, gone with the
 * server. Nothing that is done in it touches what lies in the data folder.
 */
export class LookAround {
  private made: Promise<{ yard: Yard; app: RequestHandler }> | null = null;

  constructor(
    private readonly clock: Clock,
    private readonly about: { open: boolean; hosts: readonly string[] },
    private readonly log: Logger,
  ) {}

  /** Answers its API; everything else is passed on. */
  readonly handler: RequestHandler = (req, res, next) => {
    if (!req.path.startsWith('/api/')) return next();
    this.made ??= this.make();
    this.made.then(
      ({ app }) => app(req, res, next),
      (error: unknown) => {
        // The next request tries again.
        this.made = null;
        next(error);
      },
    );
  };

  async close(): Promise<void> {
    const made = await this.made?.catch(() => null);
    await made?.yard.close();
  }

  private async make() {
    const { clock, about, log } = this;
    const yard = await openYard({ dataDir: null, now: clock.now, demo: true });
    await seedDemo(yard, clock);
    await beginHistory(yard, 'demo');
    const { store } = yard;
    const told = { ...about, demo: true };
    const context = { yard, store, clock, ...told, summaries: new Summaries(store, clock, told, yard.notices) };
    return { yard, app: makeApp(context, { log, webDir: null }) as unknown as RequestHandler };
  }
}
