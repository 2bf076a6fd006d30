import { useState } from 'react';
import { coatsForFilm } from '#core/film/spreading';
import { counted } from '#core/units/format';
import type { BuildUpRow } from '#contracts/rows/boat';
import { attempt } from '../../parts/attempt';
import { QuantityField } from '../../parts/Field';
import type { SectionCoat } from './section/coat';

/** The film that is wanted in all, beside the film that there is, and how many coats more it takes. */
export function FilmTarget({
  row,
  coats,
  onWrite,
}: {
  row: BuildUpRow | undefined;
  coats: readonly SectionCoat[];
  onWrite: (change: Partial<BuildUpRow>, label: string) => void;
}) {
  const [target, setTarget] = useState(row?.targetMicron ?? null);
  const kept = coats.reduce((sum, c) => sum + c.keptMicron, 0);
  const thickest = coats.reduce<SectionCoat | null>(
    (most, c) => (most === null || c.layer.dftMicron > most.layer.dftMicron ? c : most),
    null,
  );
  const lacks = target === null ? 0 : target - kept;
  const more =
    thickest && lacks > 0.5
      ? attempt(() => coatsForFilm({ totalMicron: lacks, perCoatMicron: thickest.layer.dftMicron })).value
      : null;
  return (
    <div className="flex flex-wrap items-end gap-3 pt-2">
      <div className="w-44">
        <QuantityField
          label="Film wanted in all"
          quantity="film"
          value={target}
          onValue={setTarget}
          hint={
            more && thickest ? `${counted(more, 'coat')} more of ${thickest.name} would do` : 'Empty: the usual one'
          }
        />
      </div>
      <button
        type="button"
        className="btn mb-7"
        disabled={Number.isNaN(target) || target === (row?.targetMicron ?? null)}
        onClick={() => onWrite({ targetMicron: target }, 'Target set')}
      >
        Set target
      </button>
    </div>
  );
}
