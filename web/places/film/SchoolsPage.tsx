import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { coatOf } from '#core/coat/fold';
import { ABRADE_FOR, type Layer } from '#core/model/layer';
import { USUAL_LOSS } from '#core/film/spreading';
import { packsMinor } from '#core/stores/money';
import { jobList } from '#core/stores/share';
import { withSheets } from '#core/system/ledger';
import { checkBuildUp } from '#core/system/checkBuildUp';
import type { SheetLayer } from '#core/system/quantities';
import {
  airAsked,
  inSchool,
  schoolFigures,
  USUAL_CHOICES,
  type AirAsked,
  type JobChoices,
  type SchoolFigures,
} from '#core/system/schools';
import { coatNeeds, structureIsOpen } from '#core/stores/needs';
import { weatherAt } from '#core/air/weather';
import type { BuildUpRow, SurfaceRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { save, useNamed, useStores, type BoatView } from '../../data/store';
import { USUAL_RULES } from '#contracts/rows/stores';
import { attempt } from '../../parts/attempt';
import { Term } from '../../parts/Term';
import { Choice, QuantityField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { ABRADE_FOR_WORDS, BOND_WORDS, PRIMER_FOR_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS, moneyWords, spanWords } from '../../parts/words';
import { FindingMark } from './FindingMark';
import { useSheetOf } from './useLedger';
import { counted } from '#core/units/format';

interface Way {
  readonly name: string;
  readonly layers: readonly SheetLayer[];
  /** What taking it writes; null for what stands already. */
  readonly take: (() => void) | null;
}

interface WayFigures {
  readonly figures: SchoolFigures;
  readonly air: AirAsked;
  readonly minor: number | null;
  readonly stops: number;
}

const HOUR_MS = 3_600_000;

/** The schools of this job, and what each of them would ask on one zone: weather, days, litres, money. */
export function SchoolsPage() {
  const view = useView();
  const { surfaceId } = useParams();
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  if (!surface) return <NotFound what="zone" />;
  return <Schools view={view} surface={surface} />;
}

function Schools({ view, surface }: { view: BoatView; surface: SurfaceRow }) {
  const s = useSchools(view, surface);

  return (
    <div className="min-w-0">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h1 className="mr-auto text-2xl">Schools, on {surface.name}</h1>
        <Link to={`/boats/${s.boat.id}/film/${surface.id}`} className="btn">
          Back to the section
        </Link>
      </div>
      <SchoolChoices s={s} />
      <p className="text-sm quiet">
        A <Term of="school">school</Term> is chosen for the whole haul-out, for example{' '}
        <Term of="tackWindow">in the tack window</Term>; every coat may say otherwise. New coats are put down this way,
        and products of the chosen kind stand first.
      </p>
      <div className="my-3 w-40">
        <QuantityField label="Compared at" quantity="temperature" value={s.tempC} onValue={s.setTemp} />
      </div>
      {s.ways.length === 0 ? (
        <p className="quiet">Plan coats on this zone, or name a build-up for it, to compare.</p>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Comparison">
          <WaysTable s={s} />
        </div>
      )}
      <p className="mt-2 text-sm quiet">
        One person, eight hours a day, packs bought for this zone alone and for nine cases of ten; rates of work are
        from memory. Days run from the first coat to the water, or to full cure where it meets none.
      </p>
    </div>
  );
}

function SchoolChoices({ s }: { s: ReturnType<typeof useSchools> }) {
  return (
    <div className="flex flex-wrap gap-x-8 gap-y-3 py-3">
      {!s.job && <p className="quiet">The schools are kept with the haul-out: put its dates in first.</p>}
      <Choice
        label="Coats bond"
        options={Object.entries(BOND_WORDS) as [JobChoices['bond'], string][]}
        value={s.choices.bond}
        onPick={(bond) => s.choose({ bond })}
      />
      <Choice
        label="Paint"
        options={[
          ['twoPack', 'Two-pack'],
          ['onePack', 'One-pack'],
        ]}
        value={s.choices.packs}
        onPick={(packs) => s.choose({ packs })}
      />
      <Choice
        label="Put on by"
        options={Object.entries(METHOD_WORDS) as [JobChoices['method'], string][]}
        value={s.choices.method}
        onPick={(method) => s.choose({ method })}
      />
      <Choice
        label="Rolled finish"
        options={[
          ['tip', 'roll and tip'],
          ['roll', 'roll only'],
        ]}
        value={s.choices.tip ? 'tip' : 'roll'}
        onPick={(v) => s.choose({ tip: v === 'tip' })}
      />
      <Choice
        label="Primer is there"
        options={Object.entries(PRIMER_FOR_WORDS) as [JobChoices['primerFor'], string][]}
        value={s.choices.primerFor}
        onPick={(primerFor) => s.choose({ primerFor })}
      />
      <Choice
        label="Abrading is"
        options={ABRADE_FOR.map((a) => [a, ABRADE_FOR_WORDS[a]] as const)}
        value={s.choices.abradeFor}
        onPick={(abradeFor) => s.choose({ abradeFor })}
      />
    </div>
  );
}

function WaysTable({ s }: { s: ReturnType<typeof useSchools> }) {
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="lab border-b border-base-content">
          <th className="py-1 pr-3 font-medium">Way</th>
          {[
            'coats',
            'film left',
            'litres',
            'packs',
            'painting',
            'abrading',
            'days',
            'narrowest window',
            'air it asks for',
          ].map((h) => (
            <th key={h} className="px-2 text-right font-medium">
              {h}
            </th>
          ))}
          <td className="pl-2" />
        </tr>
      </thead>
      <tbody>
        {s.ways.map((way, i) => (
          <WayRow key={`${way.name}${i}`} way={way} figures={s.figuresOf(way.layers)} currency={s.currency} />
        ))}
      </tbody>
    </table>
  );
}

/** The ways a zone may be built up, and what each comes to. */
function useSchools(view: BoatView, surface: SurfaceRow) {
  const { boat, jobs, buildUps, sheetById, hours, at } = view;
  const { named } = useNamed();
  const sheetOf = useSheetOf();
  const job = jobs[jobs.length - 1];
  const choices = job?.choices ?? USUAL_CHOICES;
  const [tempC, setTemp] = useState<number | null>(() => Math.round(weatherAt(hours, at)?.airC ?? 18));
  const row = buildUps.find((b) => b.surfaceId === surface.id);
  const own = withSheets(row?.layers ?? [], sheetById);
  const choose = (change: Partial<JobChoices>) => {
    if (job) void save({ kind: 'job', row: { ...job, choices: { ...choices, ...change } } }, 'School chosen');
  };
  const bare = (layers: readonly SheetLayer[]): Layer[] => layers.map(({ sheet: _sheet, ...l }) => l);
  const write = (layers: readonly SheetLayer[], label: string) => () => {
    if (row) void save({ kind: 'buildUp', row: { ...row, layers: bare(layers) } satisfies BuildUpRow }, label);
  };
  const isOn = (l: Layer) => coatOf(view.coats, surface.id, l.id) !== undefined;
  const schooled = (bond: JobChoices['bond']) =>
    inSchool(own, bond, choices.abradeFor).map((l, i) => (isOn(l) ? (own[i] as SheetLayer) : l));
  const byMethod = (method: Layer['method']) => own.map((l) => (isOn(l) ? l : putOnBy(l, method)));
  const other = choices.method === 'roller' ? 'brush' : 'roller';
  const ways: Way[] = [
    ...(own.length > 0
      ? [
          { name: 'As planned', layers: own, take: null },
          {
            name: BOND_WORDS.chemical,
            layers: schooled('chemical'),
            take: write(schooled('chemical'), BOND_WORDS.chemical),
          },
          {
            name: BOND_WORDS.mechanical,
            layers: schooled('mechanical'),
            take: write(schooled('mechanical'), BOND_WORDS.mechanical),
          },
          {
            name: `By ${METHOD_WORDS[other].toLowerCase()}`,
            layers: byMethod(other),
            take: write(byMethod(other), `By ${METHOD_WORDS[other].toLowerCase()}`),
          },
          { name: 'By spray', layers: byMethod('spray'), take: write(byMethod('spray'), 'By spray') },
        ]
      : []),
    ...(named ?? [])
      .filter((n) => n.exposure === surface.exposure && n.substrates.includes(surface.substrate))
      .map((n) => ({ name: n.name, layers: withSheets(n.layers, sheetById), take: null })),
  ];
  const figuresOf = (layers: readonly SheetLayer[]): WayFigures | null =>
    attempt(() => {
      const t = tempC as number;
      const { needs } = coatNeeds({
        surfaces: [surface],
        buildUps: [{ surfaceId: surface.id, layers }],
        coats: [],
        revisionById: sheetById,
      });
      const products = jobList({ needs, sheetOf, onHandOf: () => [], chance: 0.9 });
      const minor = products.every((p) => p.purchase?.costMinor != null) ? packsMinor(products) : null;
      const found = checkBuildUp({
        substrate: surface.substrate,
        exposure: surface.exposure,
        existing: surface.existing,
        holds: surface.holds,
        layers,
        waters: boat.waters,
        records: (row?.records ?? []).map((r) => r.kind),
        openWork: structureIsOpen(surface),
        targetMicron: row?.targetMicron ?? null,
      });
      return {
        figures: schoolFigures({ layers, areaM2: surface.areaM2, areaShare: surface.areaShare, tempC: t }),
        air: airAsked({ layers, tempC: t }),
        minor,
        stops: found.filter((f) => f.severity === 'stop').length,
      };
    }).value;
  const { currency } = useStores().stores?.rules ?? USUAL_RULES;
  return { boat, job, choices, choose, tempC, setTemp, ways, figuresOf, currency };
}

/** A coat put on another way, with the film and the loss usual for it; as it was where the sheet does not allow that way. */
function putOnBy(layer: SheetLayer, method: Layer['method']): SheetLayer {
  const allowed = layer.sheet.methods ?? [];
  const row = allowed.find((m) => m.method === method);
  if (allowed.length > 0 && !row) return layer;
  return {
    ...layer,
    method,
    tip: undefined,
    dftMicron: row?.dftMicron ?? layer.dftMicron,
    loss: layer.loss === USUAL_LOSS[layer.method] ? USUAL_LOSS[method] : layer.loss,
  };
}

function WayRow({ way, figures, currency }: { way: Way; figures: WayFigures | null; currency: string }) {
  if (!figures) {
    return (
      <tr className="border-b border-base-300">
        <th scope="row" className="py-1.5 pr-3 font-normal">
          {way.name}
        </th>
        <td colSpan={10} className="quiet">
          its figures cannot be worked out: look at its sheets
        </td>
      </tr>
    );
  }
  const { figures: f, air } = figures;
  return (
    <tr className="border-b border-base-300 align-baseline">
      <th scope="row" className="min-w-40 py-1.5 pr-3 font-semibold">
        {way.name}{' '}
        {figures.stops > 0 && (
          <span className="narrow inline-flex items-center gap-1 font-medium whitespace-nowrap">
            <FindingMark severity="stop" size={15} /> {counted(figures.stops, 'stop')}
          </span>
        )}
      </th>
      <td className="fig px-2 text-right">{f.coats}</td>
      <td className="px-2 text-right">
        <Fig quantity="film" value={f.keptMicron} />
      </td>
      <td className="px-2 text-right">
        <Fig quantity="volume" value={f.litres.likely} approx />
      </td>
      <td className="fig px-2 text-right">{figures.minor === null ? '·' : moneyWords(figures.minor, currency)}</td>
      <td className="fig px-2 text-right">{spanWords(f.paintH * HOUR_MS)}</td>
      <td className="fig px-2 text-right">{f.abradeH > 0 ? spanWords(f.abradeH * HOUR_MS) : 'none'}</td>
      <td
        className="px-2 text-right"
        title={f.without.length > 0 ? `No overcoat time on the sheet of ${f.without.join(', ')}` : undefined}
      >
        {f.days === null ? (
          <span className="quiet">no times</span>
        ) : (
          <span className="fig">{Number.isFinite(f.days) ? f.days.toFixed(1) : 'never'}</span>
        )}
      </td>
      <td className="fig px-2 text-right">
        {f.narrowestWindowH === null
          ? 'none to meet'
          : f.narrowestWindowH <= 0
            ? 'no window'
            : spanWords(f.narrowestWindowH * HOUR_MS)}
      </td>
      <td className="px-2 text-right text-sm">
        {air.airMinC !== null && (
          <>
            from <Fig quantity="temperature" value={air.airMinC} digits={0} />
          </>
        )}
        {air.rhMax !== null && (
          <>
            , damp to <Fig quantity="percent" value={air.rhMax} digits={0} />
          </>
        )}
        {air.touchDryH !== null &&
          (Number.isFinite(air.touchDryH) ? (
            <>, dry for {spanWords(air.touchDryH * HOUR_MS)}</>
          ) : (
            ', never dry so cold'
          ))}
      </td>
      <td className="pl-2 text-right">
        {way.take && (
          <button type="button" className="btn" onClick={way.take} aria-label={`Take: ${way.name}`}>
            Take
          </button>
        )}
      </td>
    </tr>
  );
}
