import type { Clock } from './clock';
import type { Db } from './db/open';
import type { FileStore } from './files';

/** What every route works with. */
export interface Context {
  readonly db: Db;
  readonly clock: Clock;
  readonly files: FileStore;
  readonly demo: boolean;
}
