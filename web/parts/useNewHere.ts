import { useEffect } from 'react';
import { useSearchParams } from 'react-router';

/** The address asks for a new one here: it is made once, and the address is as before. */
export function useNewHere(make: () => void): void {
  const [search, setSearch] = useSearchParams();
  const asked = search.has('new');
  useEffect(() => {
    if (!asked) return;
    setSearch((s) => (s.delete('new'), s), { replace: true });
    make();
    // Once for each time it is asked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
}
