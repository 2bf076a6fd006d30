import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { coatOf } from '#core/coat/fold';
import { applyNamed, departure } from '#core/system/system';
import type { BuildUpRow, SurfaceRow } from '#contracts/rows/boat';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import type { Departure } from '#core/system/system';
import type { Layer } from '#core/model/layer';
import type { Change } from '../../data/changes';
import { save, useNamed, useSheets, type BoatView } from '../../data/store';
import { useUsual, type Usual } from '../../data/usual';
import { Choice, TextField } from '../../parts/Field';
import { useSpoken } from '../../parts/spoken';
import { BOND_WORDS } from '../../parts/choiceWords';
import { sheetIdsOf } from '../buildups/sheetIds';

/** A zone and the named build-ups: which it follows, how it departs, taking one, or giving its own a name. */
export function FromNamed({
  view,
  surface,
  row,
  onWrite,
  onBack,
}: {
  view: BoatView;
  surface: SurfaceRow;
  row: BuildUpRow | undefined;
  onWrite: (change: Partial<BuildUpRow>, label: string, first?: readonly Change[]) => void;
  onBack: () => void;
}) {
  const { named } = useNamed();
  const { data: sheets } = useSheets();
  const usual = useUsual(view.jobs[view.jobs.length - 1]?.currency ?? 'EUR');
  const [all, setAll] = useState<'fit' | 'all'>('fit');
  const [name, setName] = useState('');
  if (!named || !sheets || !usual)
    return <div className="skeleton h-40 rounded-sm" role="status" aria-label="Loading build-ups" />;
  const sheetOf = sheetIdsOf(sheets, view.sheets);
  const followed = named.find((n) => n.id === row?.namedId);
  const departed = followed && row ? departure({ named: followed.layers, layers: row.layers, sheetOf }) : null;
  const fits = (n: NamedBuildUpRow) => n.exposure === surface.exposure && n.substrates.includes(surface.substrate);
  const list = usual.list.filter((n) => all === 'all' || fits(n));
  const isOn = (layerId: string) => coatOf(view.coats, surface.id, layerId) !== undefined;
  const take = (n: NamedBuildUpRow) => {
    const layers = applyNamed({ named: n.layers, current: row?.layers ?? [], isOn, sheetOf, newId: uuid });
    return layers;
  };
  return (
    <section className="flex flex-col gap-3" aria-labelledby="named">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h2 id="named" className="mr-auto">
          Named build-ups
        </h2>
        <Link to="/build-ups" className="narrow link-row text-lg underline underline-offset-4">
          All of them
        </Link>
        <button type="button" className="btn" onClick={onBack}>
          Back
        </button>
      </div>
      {followed && departed && <Follows followed={followed} departed={departed} />}
      <Choice
        label="Shown"
        options={[
          ['fit', 'for this zone'],
          ['all', 'all'],
        ]}
        value={all}
        onPick={setAll}
      />
      {list.length === 0 && <p className="quiet">None is named for this substrate and exposure.</p>}
      <ul className="sheet-rule">
        {list.map((n) => {
          const layers = take(n);
          return <NamedChoice n={n} layers={layers} usual={usual} onWrite={onWrite} key={n.id} />;
        })}
      </ul>
      {row && row.layers.length > 0 && (
        <GiveName row={row} name={name} setName={setName} surface={surface} onWrite={onWrite} />
      )}
    </section>
  );
}

function Follows({ followed, departed }: { followed: NamedBuildUpRow; departed: Departure }) {
  return (
    <p>
      Follows{' '}
      <Link to={`/build-ups/${followed.id}`} className="underline underline-offset-4">
        {followed.name}
      </Link>
      {departed.follows ? '.' : ` and departs from it: ${departed.differences.join(', ')}.`}
    </p>
  );
}

function NamedChoice({
  n,
  layers,
  usual,
  onWrite,
}: {
  n: NamedBuildUpRow;
  layers: readonly Layer[] | null;
  usual: Usual;
  onWrite: (change: Partial<BuildUpRow>, label: string, first?: readonly Change[]) => void;
}) {
  const say = useSpoken();
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <div className="min-w-0 flex-1 basis-64">
        <p className="font-semibold">{say(n.name)}</p>
        <p className="text-sm quiet">
          {n.layers.length} coats · {BOND_WORDS[n.bond].toLowerCase()}
          {usual.isHere(n) ? '' : ' · usual, of made-up products'}
          {n.note ? ` · ${n.note}` : ''}
        </p>
      </div>
      {layers ? (
        <button
          type="button"
          className="btn"
          onClick={() =>
            onWrite(
              { layers: [...layers], namedId: n.id, targetMicron: n.targetMicron },
              `${say(n.name)} taken`,
              usual.takeIn([n]),
            )
          }
        >
          Take
        </button>
      ) : (
        <span className="text-sm quiet">does not fit what is on</span>
      )}
    </li>
  );
}

function GiveName({
  row,
  name,
  setName,
  surface,
  onWrite,
}: {
  row: BuildUpRow;
  name: string;
  setName: (value: string) => void;
  surface: SurfaceRow;
  onWrite: (change: Partial<BuildUpRow>, label: string, first?: readonly Change[]) => void;
}) {
  return (
    <div className="flex flex-wrap items-end gap-3 border-t border-base-300 pt-3">
      <div className="min-w-52 flex-1">
        <TextField
          label="Give this zone’s coats a name"
          value={name}
          onChange={(e) => setName(e.target.value)}
          hint="Then other zones and boats can take it."
        />
      </div>
      <button
        type="button"
        className="btn"
        disabled={name.trim() === ''}
        onClick={() => {
          const id = uuid();
          const chemical = row.layers.some((l) => l.prep === 'tackWindow');
          void save(
            {
              kind: 'named',
              row: {
                id,
                name: name.trim(),
                substrates: [surface.substrate],
                exposure: surface.exposure,
                bond: chemical ? 'chemical' : 'mechanical',
                note: '',
                targetMicron: row.targetMicron,
                layers: row.layers.map((l) => ({ ...l, id: uuid() })),
                version: 0,
                deleted: false,
              },
            },
            `${name.trim()} named`,
            { quiet: true },
          );
          onWrite({ namedId: id }, `${name.trim()} named`);
        }}
      >
        Name it
      </button>
    </div>
  );
}
