/** What the build lists of itself, smallest parts of places first; see `ahead` in vite.config.ts. */
const LIST = '/ahead.json';
/** Who comes has the line and the processor to themselves for so long; a phone is at the hull for longer than that. */
const FIRST_MS = 8000;
/** What could not be fetched is asked for again so soon. */
const AGAIN_MS = 20_000;

/**
 * Once the first screen stands and nothing is asked of the page, fetch every part of the program, one after the other, so
 * that each place opens whole where there is no signal. Resolves when all of it is here, and says so on the page.
 */
export async function fetchAhead(): Promise<void> {
  await after(FIRST_MS);
  let waiting: string[] | null = null;
  while (waiting === null || waiting.length > 0) {
    await idle();
    try {
      waiting ??= (await (await fetch(LIST)).json()) as string[];
      if (waiting[0] !== undefined) await fetched(waiting[0]);
      waiting.shift();
    } catch {
      // What does not come now is asked for again.
      await after(AGAIN_MS);
    }
  }
  document.documentElement.dataset.ahead = 'all';
}

const after = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const idle = (): Promise<unknown> =>
  typeof requestIdleCallback === 'undefined' ? after(50) : new Promise((done) => requestIdleCallback(done));

/** A script goes into the page's own store of modules, and is run when it is wanted; anything else into the browser's. */
function fetched(file: string): Promise<void> {
  if (!file.endsWith('.js')) return fetch(file).then(() => undefined);
  return new Promise((done, fail) => {
    const link = Object.assign(document.createElement('link'), { rel: 'modulepreload', href: file });
    link.onload = () => done();
    link.onerror = () => {
      link.remove();
      fail(new Error(file));
    };
    document.head.append(link);
  });
}
