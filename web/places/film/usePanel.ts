import { useState } from 'react';
import { useSearchParams } from 'react-router';

/** A coat is being added at this place of the list. */
export interface AddPanel {
  readonly kind: 'add';
  readonly at: number;
}

/**
 * What stands beside a section. Where a coat is being added stands in the address: it is there again after a sheet was
 * made for it.
 */
export function usePanel<P extends { readonly kind: string }>(rest: P): [P | AddPanel, (panel: P | AddPanel) => void] {
  const [search, setSearch] = useSearchParams();
  const at = search.get('add');
  const [other, setOther] = useState<P>(rest);
  const isAdd = (panel: P | AddPanel): panel is AddPanel => panel.kind === 'add';
  const setPanel = (next: P | AddPanel) => {
    setOther(isAdd(next) ? rest : next);
    const wanted = isAdd(next) ? String(next.at) : null;
    if (wanted !== at)
      setSearch((s) => (s.delete('sheet'), wanted === null ? s.delete('add') : s.set('add', wanted), s), {
        replace: true,
      });
  };
  return [at === null ? other : { kind: 'add', at: Number(at) || 0 }, setPanel];
}

/** Where a sheet that is made for the coat being added leads back to. */
export const backToAdding = (path: string, at: number): string => `${path}?add=${at}&sheet=:id`;
