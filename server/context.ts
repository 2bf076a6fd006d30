import type { Clock } from './clock';
import type { Store } from './db/store';
import type { Yard } from './keep/yard';
import type { Summaries } from './summaries';

/** What every route works with. */
export interface Context {
  readonly yard: Yard;
  readonly store: Store;
  readonly summaries: Summaries;
  readonly clock: Clock;
  readonly demo: boolean;
  /** Anybody on the network may write here. */
  readonly open: boolean;
  /** Host names that are ours besides this machine's own. */
  readonly hosts: readonly string[];
}
