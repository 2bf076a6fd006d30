import { packEmpty } from './db/open';

/** Part of the build: an empty database, so that the first start of a yard takes a second. */
await packEmpty();
