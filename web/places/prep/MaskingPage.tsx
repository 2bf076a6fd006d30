import { useState } from 'react';
import { Link } from 'react-router';
import { TAPES } from '#core/prep/tape';
import { counted } from '#core/units/format';
import { useView } from '../../app/BoatShell';
import { now } from '../../data/now';
import type { BoatView } from '../../data/store';
import { BottomSheet } from '../../parts/BottomSheet';
import { MASKED_WORDS } from '../../parts/choiceWords';
import { Fig } from '../../parts/Fig';
import { Choice, FormProblem, TextField } from '../../parts/Field';
import { TimeField } from '../../parts/TimeField';
import { spanWords, timeWords } from '../../parts/words';
import { useMasking, type EdgeOn, type ThingOn } from './useMasking';
import { logOnZones, TAP } from './usePrep';

const DAY_MS = 86_400_000;
const TAPE_WORDS = { fineLine: 'fine line', wide: 'wide', paper: 'paper' } as const;

/** Edges to tape and things never painted: how long, which tape, when it must be off, and what launch waits for. */
export function MaskingPage() {
  const view = useView();
  const { edges, things, others, still } = useMasking(view);
  const { boat } = view;
  const rolls = (kind: 'fineLine' | 'wide') => edges.flatMap((e) => e.tapes).filter((t) => t.kind === kind);
  const need = (kind: 'fineLine' | 'wide') => {
    const lengthM = rolls(kind).reduce((sum, t) => sum + t.lengthM, 0);
    return { lengthM, rolls: Math.ceil(lengthM / TAPES[kind].rollM - 1e-9) };
  };
  return (
    <div className="min-w-0 max-w-5xl">
      <div className="ruled flex flex-wrap items-center gap-3 pb-1">
        <h1 className="mr-auto text-2xl">Masking of {boat.name}</h1>
        <Link to={`/boats/${boat.id}/film/borders`} className="btn">
          Borders
        </Link>
        <Link to={`/boats/${boat.id}/prep`} className="btn">
          Back to Prep
        </Link>
      </div>
      <section aria-labelledby="edges">
        <h2 id="edges" className="mt-3">
          Edges
        </h2>
        {edges.length === 0 && (
          <p className="max-w-prose py-2">
            An edge is where two zones meet. Add borders under Film, and each is here with its length along the hull,
            its tape and its rolls.
          </p>
        )}
        <ol className="sheet-rule">
          {edges.map((e, i) => (
            <Edge key={e.job} view={view} edge={e} no={i + 1} />
          ))}
        </ol>
        {edges.some((e) => e.tapings > 0) && (
          <p className="py-2">
            In all: {counted(need('fineLine').rolls, 'roll')} of fine line (
            <Fig quantity="length" value={need('fineLine').lengthM} digits={0} />
            ), {counted(need('wide').rolls, 'roll')} of wide (
            <Fig quantity="length" value={need('wide').lengthM} digits={0} />
            ). They are on the shopping list.
          </p>
        )}
        <p className="max-w-prose text-sm quiet">
          Fine line on the line, then the wide one onto its outer half, pressed along the edge. Coats on following days
          share a taping; after a gap, or when the tape has lived its days, it is off and on again.
        </p>
      </section>
      <section aria-labelledby="things" className="mt-4">
        <h2 id="things">Never painted</h2>
        {things.length === 0 && (
          <p className="max-w-prose py-2">
            Anodes, transducers, earth plates, seals: list them on their zone under Hull, and launch waits until
            somebody has looked at them.
          </p>
        )}
        <ul className="sheet-rule">
          {things.map((t) => (
            <Thing key={t.job} view={view} thing={t} against={still.find((s) => s.job === t.job)?.why ?? null} />
          ))}
          {others.map((m) => (
            <Other key={m.job} view={view} masked={m} />
          ))}
        </ul>
        {still.length > 0 ? (
          <p className="border-l-4 border-warning pl-3 font-semibold" role="status">
            {counted(still.length, 'thing')} to unmask or look at before she floats.
          </p>
        ) : (
          things.length > 0 && <p className="py-2">All of it is clear: nothing here holds up the launch.</p>
        )}
      </section>
    </div>
  );
}

/** Masked once, and no longer an edge or a thing of hers. */
function Other({ view, masked: m }: { view: BoatView; masked: ReturnType<typeof useMasking>['others'][number] }) {
  const name = m.text || 'Something masked';
  return (
    <li className="flex items-center gap-4 py-2">
      <span className="min-w-0 flex-1">
        {name} <span className="quiet">no longer on the list, {view.zoneName(m.zone)}</span>
      </span>
      <button
        type="button"
        className="btn btn-primary"
        aria-label={`${name}: off`}
        onClick={() =>
          void logOnZones(view, [m.zone], { kind: 'unmasked', body: { job: m.job, text: name } }, `${name}: off`, TAP)
        }
      >
        It is off
      </button>
    </li>
  );
}

function Edge({ view, edge, no }: { view: BoatView; edge: EdgeOn; no: number }) {
  const [asking, setAsking] = useState(false);
  const { on } = edge;
  const when = (t: number) => timeWords(t, view.at, view.boat.timeZone);
  const end = on ? on.at + on.lifeDays * DAY_MS : null;
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <span className="fig text-lg quiet">{no}</span>
      <div className="min-w-0 flex-1 basis-64">
        <p className="font-semibold">
          {edge.name} <Fig quantity="length" value={edge.lengthM} approx={edge.known === 'guess'} />
        </p>
        <p className="text-sm">
          {edge.tapings === 0
            ? 'no coat to come that stops here'
            : `${edge.tapes.map((t) => `${TAPE_WORDS[t.kind]} ${counted(t.rolls, 'roll')}`).join(' + ')}, taped ${edge.tapings === 1 ? 'once' : `${edge.tapings} times`}`}
          <span className="quiet">
            {' · '}
            {edge.pull === 'wet' ? 'pull while wet' : 'pull when touch dry'}
            {edge.known === 'guess' ? ' · length guessed from the smaller zone' : ''}
          </span>
        </p>
        {on && end !== null && (
          <p className={end < view.at ? 'font-semibold text-error' : ''}>
            On since {when(on.at)}
            {end > view.at
              ? `, off by ${when(end)}, ${spanWords(end - view.at)} left`
              : `: its days were over ${when(end)}. Run a knife along the edge before you pull.`}
          </p>
        )}
      </div>
      {on ? (
        <button
          type="button"
          className="btn btn-primary"
          onClick={() =>
            void logOnZones(
              view,
              [on.zone],
              { kind: 'unmasked', body: { job: edge.job, text: edge.name } },
              `${edge.name}: tape off`,
              TAP,
            )
          }
        >
          Tape is off
        </button>
      ) : (
        <button type="button" className="btn" onClick={() => setAsking(true)} aria-label={`${edge.name}: tape is on`}>
          Tape is on
        </button>
      )}
      {asking && <TapeForm view={view} edge={edge} onClose={() => setAsking(false)} />}
    </li>
  );
}

function TapeForm({ view, edge, onClose }: { view: BoatView; edge: EdgeOn; onClose: () => void }) {
  const [at, setAt] = useState(now);
  const [pull, setPull] = useState(edge.pull);
  const [life, setLife] = useState(String(edge.lifeDays));
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const save = async () => {
    const lifeDays = Number(life.replace(',', '.'));
    if (!(lifeDays > 0)) return setProblem('Type how many days the tape lives: it is printed on the roll.');
    const wrong = await logOnZones(
      view,
      [edge.lowerId],
      {
        kind: 'masked',
        body: { job: edge.job, lifeDays, pull, text: [edge.name, text.trim()].filter(Boolean).join(', ') },
        occurredAt: at,
      },
      `${edge.name}: taped`,
    );
    if (wrong) return setProblem(wrong);
    onClose();
    return undefined;
  };
  return (
    <BottomSheet title={`Tape on ${edge.name}`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        <TimeField label="Put on" at={at} onAt={setAt} zone={view.boat.timeZone} />
        <TextField
          label="Lives, days"
          inputMode="decimal"
          value={life}
          onChange={(e) => setLife(e.target.value)}
          hint={view.boat.shelter === 'open' ? 'In the sun: fewer than on the roll' : 'In the shade'}
        />
        <Choice
          label="It comes off"
          options={[
            ['wet', 'while wet'],
            ['touchDry', 'touch dry'],
          ]}
          value={pull}
          onPick={setPull}
        />
        <TextField label="Which tape" value={text} onChange={(e) => setText(e.target.value)} hint="Optional" />
        <FormProblem message={problem} />
        <button type="button" className="btn btn-primary" onClick={() => void save()}>
          It is on
        </button>
      </div>
    </BottomSheet>
  );
}

function Thing({ view, thing, against }: { view: BoatView; thing: ThingOn; against: 'on' | 'unchecked' | null }) {
  const when = (t: number) => timeWords(t, view.at, view.boat.timeZone);
  const name = `${thing.count > 1 ? `${thing.count} × ` : ''}${MASKED_WORDS[thing.thing]}`;
  const log = (kind: 'masked' | 'unmasked') =>
    void logOnZones(
      view,
      [thing.surfaceId],
      kind === 'masked'
        ? { kind, body: { job: thing.job, lifeDays: TAPES.wide.shadeDays, pull: 'touchDry', text: name } }
        : { kind, body: { job: thing.job, text: name } },
      kind === 'masked' ? `${name}: masked` : `${name}: clear`,
      TAP,
    );
  return (
    <li className="flex flex-wrap items-center gap-x-4 py-2">
      <div className="min-w-0 flex-1 basis-56">
        <p>
          <span className="font-semibold">{name}</span> <span className="quiet">{view.zoneName(thing.surfaceId)}</span>
          {thing.note && <span className="quiet">, {thing.note}</span>}
        </p>
        <p className="text-sm">
          {against === 'on'
            ? `masked since ${when(thing.on?.at ?? view.at)}`
            : against === 'unchecked'
              ? 'painted around, not looked at since'
              : thing.clearAt !== null
                ? `clear, looked at ${when(thing.clearAt)}`
                : 'nothing painted near it yet'}
        </p>
      </div>
      {thing.on === null && (
        <button type="button" className="btn" aria-label={`${name}: masked`} onClick={() => log('masked')}>
          Masked
        </button>
      )}
      {against !== null && (
        <button type="button" className="btn btn-primary" aria-label={`${name}: clear`} onClick={() => log('unmasked')}>
          Clear
        </button>
      )}
    </li>
  );
}
