import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';

/** The address asks for a new one here: it is made once, and the address is as before. */
export function useNewHere(make: () => void): void {
  const [search, setSearch] = useSearchParams();
  const asked = search.has('new');
  const made = useRef(false);
  useEffect(() => {
    if (!asked) made.current = false;
    if (!asked || made.current) return;
    made.current = true;
    setSearch((s) => (s.delete('new'), s), { replace: true });
    make();
  }, [asked, make, setSearch]);
}
