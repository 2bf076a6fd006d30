import type { PrepList } from '#core/prep/prepSteps';
import type { PrepLog } from '#core/prep/prepLog';
import { keepsOff, type SurfaceClock } from '#core/prep/surfaceClocks';
import type { BoatView } from '../../data/store';
import { CLOCK_NAMES, DIRT_WORDS, PREP_WORDS } from '../../parts/prepWords';
import { spanWords, timeWords } from '../../parts/words';

/** The clocks of a surface: each burns down like a fuse, from what started it to what ends it. */
export function SurfaceClocks({ view, list, log }: { view: BoatView; list: PrepList; log: PrepLog }) {
  const { clocks } = list;
  return (
    <section aria-labelledby="clocks">
      <h2 id="clocks" className="ruled pb-1">
        Clocks of the surface
      </h2>
      {clocks.length === 0 && (
        <p className="py-1.5 quiet">
          None is running. Blasting, washing, wiping and taping start theirs when they are logged.
        </p>
      )}
      <ul className="sheet-rule">
        {clocks.map((c) => (
          <Fuse key={`${c.kind}${c.job ?? ''}`} view={view} clock={c} log={log} />
        ))}
      </ul>
    </section>
  );
}

function Fuse({ view, clock, log }: { view: BoatView; clock: SurfaceClock; log: PrepLog }) {
  const { at, boat } = view;
  const { since, until } = clock;
  const when = (t: number) => timeWords(t, at, boat.timeZone);
  const off = keepsOff([clock], at).length > 0;
  const burnt = until === null ? 0 : Math.min(1, Math.max(0, (at - since) / (until - since || 1)));
  return (
    <li className="py-1.5">
      <p className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span className="font-semibold">
          {CLOCK_NAMES[clock.kind]}
          {clock.kind === 'tape' && ` ${edgeOf(view, clock.job)}`}
        </span>
        <span className={`fig text-lg ${off ? 'font-semibold' : ''}`}>{endWords(clock, at, when)}</span>
      </p>
      <svg viewBox="0 0 100 6" preserveAspectRatio="none" className="block h-1.5 w-full" aria-hidden="true">
        <path d="M0 3H100" stroke="currentColor" strokeWidth="1" opacity=".3" />
        {burnt < 1 && <path d={`M${burnt * 100} 3H100`} stroke="currentColor" strokeWidth="6" />}
      </svg>
      <p className="text-sm quiet">{startWords(clock, log, when)}</p>
    </li>
  );
}

const edgeOf = (view: BoatView, job: string | undefined): string => {
  const border = view.borders.find((b) => `edge:${b.id}` === job);
  return border ? `${view.zoneName(border.upperId)} / ${view.zoneName(border.lowerId)}` : '';
};

/** "until 14:20, 2 h left" */
function endWords({ kind, until, endedBy }: SurfaceClock, at: number, when: (t: number) => string): string {
  if (until === null) return kind === 'clean' ? 'no rain in sight' : 'no end known';
  const left = until > at ? `, ${spanWords(until - at)} left` : '';
  switch (kind) {
    case 'clean':
      return until > at
        ? `until ${endedBy?.by === 'rain' ? 'rain ' : ''}${when(until)}${left}`
        : `${endedBy ? DIRT_WORDS[endedBy.by].toLowerCase() : 'over'} ${when(until)}`;
    case 'drying':
      return until > at ? `dry ${when(until)}${left}` : `dry since ${when(until)}`;
    case 'guideCoat':
      return until > at ? `may be blocked ${when(until)}` : 'block it off before paint';
    case 'bareMetal':
    case 'holding':
    case 'sealer':
    case 'tape':
      return until > at ? `until ${when(until)}${left}` : `over since ${when(until)}`;
  }
}

/** What started it, and what it is for. */
function startWords(clock: SurfaceClock, log: PrepLog, when: (t: number) => string): string {
  const { kind, from, since } = clock;
  const what = from === 'coat' ? 'Coated' : from === 'tape' ? 'Put on' : PREP_WORDS[from];
  const tail: Record<SurfaceClock['kind'], string> = {
    bareMetal: from === 'passivate' ? 'a few days, or as its label says' : 'primer within 4 h, or as its sheet says',
    clean: 'until rain, a neighbour’s washing, dust or overspray',
    drying: 'nothing damp is closed in',
    holding: 'then wash, mend, scuff and go on',
    sealer: 'primer the next day, or abrade first',
    guideCoat: 'no coat goes over it',
    tape:
      log.masked.find((m) => m.job === clock.job)?.pull === 'wet'
        ? 'off while the last coat is wet'
        : 'off before it bakes on; run a knife along the edge if it has',
  };
  return `${what} ${when(since)}: ${tail[kind]}`;
}
