import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** Numbers that stand in the address, in the core's units: what is worked out here can be sent as a link. */
export function useLinked(): {
  readonly figure: (key: string) => number | null;
  readonly word: (key: string) => string | null;
  readonly put: (change: Readonly<Record<string, string | number | null>>) => void;
} {
  const [search, setSearch] = useSearchParams();
  const word = useCallback((key: string) => search.get(key), [search]);
  const figure = (key: string) => {
    const text = search.get(key);
    return text === null ? null : Number(text);
  };
  const put = (change: Readonly<Record<string, string | number | null>>) =>
    setSearch(
      (s) => {
        for (const [key, value] of Object.entries(change)) {
          if (value === null || value === '') s.delete(key);
          else s.set(key, typeof value === 'number' ? String(Number(value.toPrecision(8))) : value);
        }
        return s;
      },
      { replace: true },
    );
  return { figure, word, put };
}
