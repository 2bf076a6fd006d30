import { Copy, Plus } from 'lucide-react';
import { useState } from 'react';
import { useNewHere } from '../../parts/useNewHere';
import { Link, useNavigate } from 'react-router';
import { v7 as uuid } from 'uuid';
import { EXPOSURES, SUBSTRATES, type Exposure, type Substrate } from '#core/model/surface';
import { BOND_SCHOOLS, type BondSchool } from '#core/model/buildUp';
import { keptFilms } from '#core/system/stack';
import { withSheets } from '#core/system/ledger';
import type { SheetRevision } from '#core/model/sheet';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import { save, saveAll, useNamed, useSheets, useStores } from '../../data/store';
import { useUsual } from '../../data/usual';
import { SelectField } from '../../parts/Field';
import { useSpoken } from '../../parts/spoken';
import { Term } from '../../parts/Term';
import { Fig } from '../../parts/Fig';
import { bandsOf, type Band } from '../film/section/layout';
import { BOND_WORDS, EXPOSURE_WORDS, SUBSTRATE_WORDS } from '../../parts/choiceWords';
import { counted } from '#core/units/format';

/** What a build-up is looked for by; empty is any. */
interface Wish {
  substrate: Substrate | '';
  exposure: Exposure | '';
  bond: BondSchool | '';
}

const copyOf = (n: NamedBuildUpRow): NamedBuildUpRow => ({
  ...n,
  id: uuid(),
  name: `${n.name}, copy`.slice(0, 120),
  layers: n.layers.map((l) => ({ ...l, id: uuid() })),
  version: 0,
  deleted: false,
});

/** A new one, for what is being looked for. */
const blankFor = (wish: Wish): NamedBuildUpRow => ({
  id: uuid(),
  name: 'New build-up',
  substrates: [wish.substrate || 'gelcoat'],
  exposure: wish.exposure || 'immersed',
  bond: wish.bond || 'chemical',
  note: '',
  targetMicron: null,
  layers: [],
  version: 0,
  deleted: false,
});

/** The yard's named build-ups, to reuse, copy and adapt. */
export function BuildUpsPlace() {
  const navigate = useNavigate();
  const { named, uses } = useNamed();
  const { data: sheets } = useSheets();
  const { stores } = useStores();
  const usual = useUsual(stores?.rules.currency ?? 'EUR');
  const [wish, setWish] = useState<Wish>({ substrate: '', exposure: '', bond: '' });
  const open = (row: NamedBuildUpRow, label: string) => {
    void save({ kind: 'named', row }, label);
    void navigate(`/build-ups/${row.id}`);
  };
  useNewHere(() => open(blankFor(wish), 'Build-up begun'));
  if (!named || !sheets)
    return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading build-ups" />;
  const revisionById = new Map(sheets.map((s) => [s.current.id, s.current]));
  const shown = named.filter(
    (n) =>
      (wish.substrate === '' || n.substrates.includes(wish.substrate)) &&
      (wish.exposure === '' || n.exposure === wish.exposure) &&
      (wish.bond === '' || n.bond === wish.bond),
  );
  const missing = usual?.list.filter((n) => !usual.isHere(n)) ?? [];
  return (
    <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
      <div className="ruled flex flex-wrap items-center gap-3 pb-2">
        <h1 className="mr-auto">Build-ups</h1>
        {missing.length > 0 && (
          <button
            type="button"
            className="btn"
            onClick={() =>
              usual && void saveAll(usual.takeIn(missing), `${counted(missing.length, 'usual build-up')} taken in`)
            }
          >
            Take the {missing.length} usual ones in
          </button>
        )}
        <button type="button" className="btn btn-primary" onClick={() => open(blankFor(wish), 'Build-up begun')}>
          <Plus size={16} aria-hidden="true" /> Build-up
        </button>
      </div>
      <Filters wish={wish} onWish={setWish} />
      {named.length === 0 && (
        <p className="max-w-prose py-2">
          No build-up has a name yet. Take the usual ones in, of made-up products, and put your own products in their
          place; or name the coats of a zone under Film.
        </p>
      )}
      {named.length > 0 && shown.length === 0 && (
        <p className="py-2 quiet">None is for that. Choose fewer of the three.</p>
      )}
      <ul className="sheet-rule">
        {shown.map((n) => (
          <NamedItem
            n={n}
            zones={uses[n.id]?.length ?? 0}
            filmMicron={filmOf(n, revisionById)}
            onCopy={() => open(copyOf(n), `${n.name} copied`)}
            key={n.id}
          />
        ))}
      </ul>
      <p className="mt-3 text-sm quiet">
        <Term of="takenIn">Taken in</Term>, the usual build-ups are common practice; their products are made up. Follow
        the maker’s current sheet.
      </p>
    </div>
  );
}

function Filters({ wish, onWish }: { wish: Wish; onWish: (wish: Wish) => void }) {
  return (
    <div className="grid gap-3 py-3 sm:grid-cols-3">
      <SelectField
        label="Substrate"
        options={[['', 'any'], ...SUBSTRATES.map((s) => [s, SUBSTRATE_WORDS[s]] as const)]}
        value={wish.substrate}
        onPick={(substrate) => onWish({ ...wish, substrate })}
      />
      <SelectField
        label="Exposure"
        options={[['', 'any'], ...EXPOSURES.map((e) => [e, EXPOSURE_WORDS[e]] as const)]}
        value={wish.exposure}
        onPick={(exposure) => onWish({ ...wish, exposure })}
      />
      <SelectField
        label="School"
        options={[['', 'any'], ...BOND_SCHOOLS.map((b) => [b, BOND_WORDS[b]] as const)]}
        value={wish.bond}
        onPick={(bond) => onWish({ ...wish, bond })}
        hint={<Term of="school">What is a school?</Term>}
      />
    </div>
  );
}

function NamedItem({
  n,
  zones,
  filmMicron,
  onCopy,
}: {
  n: NamedBuildUpRow;
  zones: number;
  filmMicron: number;
  onCopy: () => void;
}) {
  const say = useSpoken();
  return (
    <li className="flex min-h-14 items-center gap-4 py-2">
      <Strip named={n} />
      <div className="min-w-0 flex-1">
        <Link to={`/build-ups/${n.id}`} className="font-semibold underline decoration-1 underline-offset-4">
          {say(n.name)}
        </Link>
        <p className="text-sm quiet">
          {n.substrates.map((s) => say(SUBSTRATE_WORDS[s])).join(', ')} · {EXPOSURE_WORDS[n.exposure].toLowerCase()} ·{' '}
          {BOND_WORDS[n.bond].toLowerCase()}
          {zones > 0 ? ` · on ${counted(zones, 'zone')}` : ''}
        </p>
      </div>
      <span className="hidden text-right sm:block">
        <Fig quantity="film" value={filmMicron} className="text-lg" />
        <span className="narrow quiet block">{n.layers.length} coats</span>
      </span>
      <button
        type="button"
        className="grid min-h-11 min-w-11 place-items-center"
        aria-label={`Copy ${n.name}`}
        onClick={onCopy}
      >
        <Copy size={18} aria-hidden="true" />
      </button>
    </li>
  );
}

const filmOf = (n: NamedBuildUpRow, revisionById: ReadonlyMap<string, SheetRevision>): number =>
  keptFilms(withSheets(n.layers, revisionById)).reduce((a, b) => a + b, 0);

/** The coats in their colours, the substrate at the left, each as wide as its film. */
function Strip({ named }: { named: NamedBuildUpRow }) {
  const total = named.layers.reduce((sum, l) => sum + l.dftMicron, 0);
  const bands = bandsOf(
    named.layers.map((l) => l.dftMicron),
    { groundY: 91, scale: 90 / Math.max(total, 1) },
  );
  return (
    <svg width="92" height="34" viewBox="0 0 92 34" aria-hidden="true" className="shrink-0">
      {named.layers.map((l, i) => {
        const band = bands[i] as Band;
        return (
          <rect
            key={l.id}
            x={92 - band.y - band.h}
            y="1"
            width={Math.max(band.h, 1)}
            height="32"
            fill={l.colourHex}
            stroke="currentColor"
            strokeWidth=".7"
          />
        );
      })}
      <rect
        x="1"
        y="1"
        width="90"
        height="32"
        fill="none"
        stroke="currentColor"
        strokeDasharray={total === 0 ? '3 2' : undefined}
      />
    </svg>
  );
}
