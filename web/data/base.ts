/** The demo yard beside one's own lies under a path of its own: its data, what waits for it, its drafts. */
const DEMO = '/demo';
const path = (globalThis as { location?: Location }).location?.pathname ?? '/';
export const inDemo = path === DEMO || path.startsWith(`${DEMO}/`);
/** Before every address of this yard. */
export const BASE = inDemo ? DEMO : '';
/** A name in the device's stores, kept apart from one's own yard. */
export const ofThisYard = (name: string): string => `${name}${inDemo ? '-demo' : ''}`;
