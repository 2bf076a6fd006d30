import { useId, useState, type ReactNode } from 'react';
import type { Term as Known } from './glossary';
import { useSpoken } from './spoken';

/** A word of the trade with its explanation a tap away. */
export function Term({ of, children }: { of: Known; children: ReactNode }) {
  const id = useId();
  const say = useSpoken();
  const [entry, setEntry] = useState<readonly [string, string] | null>(null);
  // The explanations come when the first one is asked for.
  const fetchIt = () =>
    void import('./glossary').then(
      ({ GLOSSARY }) => setEntry(GLOSSARY[of]),
      () => undefined,
    );
  return (
    <>
      <button
        type="button"
        popoverTarget={id}
        onClick={fetchIt}
        className="link-row min-w-11 text-left underline decoration-dotted decoration-1 underline-offset-4 lg:min-h-6 lg:min-w-0"
        aria-description="a word of the trade: what it means"
      >
        {children}
      </button>
      <span
        id={id}
        popover="auto"
        role="note"
        className="fixed inset-x-3 top-auto bottom-20 m-auto max-w-md rounded-sm border-2 border-base-content bg-base-100 p-4 text-base font-normal text-base-content lg:bottom-8"
      >
        {entry ? (
          <>
            <strong className="narrow block text-lg">{entry[0]}</strong> {say(entry[1])}
          </>
        ) : (
          'One moment…'
        )}
      </span>
    </>
  );
}
