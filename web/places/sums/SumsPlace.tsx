import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { RatioPart } from '#core/mix/splitBatch';
import { parsePlain } from '#core/units/parse';
import { useLibrary, useSheets } from '../../data/store';
import { Choice, SelectField, TextField } from '../../parts/Field';
import { Amounts } from '../../parts/tin/Amounts';
import { TinAnswers } from '../sheets/AtTheTin';

/** Figures at a tin without any boat: by a sheet, or by the ratio that stands on the label. */
export function SumsPlace() {
  const { data: sheets } = useSheets();
  const { data: library } = useLibrary();
  const [search, setSearch] = useSearchParams();
  const own = (sheets ?? []).filter((s) => !s.withdrawn).map((s) => ({ id: s.id, body: s.current.body }));
  const shipped = (library?.sheets ?? []).filter((l) => !own.some((o) => o.id === l.id));
  const picked = [...own, ...shipped].find((s) => s.id === search.get('sheet'));
  return (
    <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
      <h1 className="ruled pb-2">At the tin</h1>
      <div className="py-3">
        <SelectField
          label="By"
          value={picked?.id ?? ''}
          options={[
            ['', 'the ratio on its label'],
            ...own.map((s) => [s.id, s.body.name] as const),
            ...shipped.map((s) => [s.id, `${s.body.name} (made up)`] as const),
          ]}
          onPick={(id) => setSearch(id ? { sheet: id } : {}, { replace: true })}
          hint="A sheet answers for times and weights too."
        />
      </div>
      {picked ? <TinAnswers key={picked.id} sheet={picked.body} /> : <ByLabel />}
    </div>
  );
}

/** "4:1", "3 : 1 : 0,5": parts by their place; null while it cannot be read as a ratio. */
function partsOf(text: string): RatioPart[] | null {
  const ratios = text.split(/[:/]|\bto\b/i).map(parsePlain);
  if (ratios.length < 2 || ratios.some((r) => r === null || !(r > 0))) return null;
  const names = ['Base', 'Hardener', 'Third part', 'Fourth part'];
  return ratios.slice(0, names.length).map((ratio, i) => ({ name: names[i] as string, ratio: ratio as number }));
}

function ByLabel() {
  const [ratio, setRatio] = useState('');
  const [basis, setBasis] = useState<'volume' | 'mass'>('volume');
  const parts = partsOf(ratio);
  const unread = ratio.trim() !== '' && !parts;
  return (
    <div className="flex flex-col gap-3">
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Ratio"
          value={ratio}
          onChange={(e) => setRatio(e.target.value)}
          placeholder="4 : 1"
          error={unread ? 'Type it as on the tin, base first: 4:1.' : undefined}
        />
        <Choice
          label="It is"
          options={[
            ['volume', 'by volume'],
            ['mass', 'by mass'],
          ]}
          value={basis}
          onPick={setBasis}
        />
      </div>
      {parts && <Amounts key={basis} parts={parts} basis={basis} />}
      <p className="text-sm quiet">
        Pot life and overcoat times stand on the product’s sheet: pick one above, or{' '}
        <Link to="/sheets/new/quick" className="underline underline-offset-4">
          type a quick one from the tin
        </Link>
        .
      </p>
    </div>
  );
}
