import { DEMO_PATH } from '#contracts/rows/door';

const path = (globalThis as { location?: Location }).location?.pathname ?? '/';
/** The demo yard has data of its own, and what waits for it and its drafts are kept apart. */
export const inDemo = path === DEMO_PATH || path.startsWith(`${DEMO_PATH}/`);
/** Before every address of this yard. */
export const BASE = inDemo ? DEMO_PATH : '';
/** A name in the device's stores, kept apart from one's own yard. */
export const ofThisYard = (name: string): string => `${name}${inDemo ? '-demo' : ''}`;
