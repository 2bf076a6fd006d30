import { memo, useId } from 'react';
import type { FilmStep } from '#core/plan/filmInTime';
import type { PlannedTask } from '#core/plan/problem';
import { StatePattern } from '../../parts/patterns';
import type { TimeWindow } from './timeScale';

/** A coat of a zone as it is drawn: how thick, which colour. */
export interface DrawnCoat {
  readonly step: FilmStep;
  readonly micron: number;
  readonly hex: string;
  /** Null for one that is on already. */
  readonly task: PlannedTask | null;
}

export const FILM_HEIGHT = 62;
const BASE = FILM_HEIGHT - 12;
const EDGE = 7;

interface Props {
  readonly coats: readonly DrawnCoat[];
  readonly works: readonly PlannedTask[];
  readonly baseMicron: number;
  readonly fullMicron: number;
  readonly seen: TimeWindow;
  readonly width: number;
  readonly selected: string | null;
  readonly locked: ReadonlySet<string>;
  /** The same coats in another plan: their starts, by task; null: no other plan is beside it. */
  readonly beside: ReadonlyMap<string, number> | null;
}

/**
 * The film of one zone growing in time: height is µm, each coat a step up; on the growing edge the window as texture in
 * which the next step must land. Work besides is a stroke under the film, abrading a scratch on its edge.
 */
export const ZoneFilm = memo(function ZoneFilm({
  coats,
  works,
  baseMicron,
  fullMicron,
  seen,
  width,
  selected,
  locked,
  beside,
}: Props) {
  const uid = useId();
  const x = (at: number) => Math.max(-4, Math.min(width + 4, ((at - seen.from) / (seen.to - seen.from)) * width));
  const scale = (BASE - EDGE - 4) / Math.max(1, fullMicron);
  const base = baseMicron * scale;
  const stack = stacked(coats, base, scale);
  return (
    <g>
      <defs>
        {(['shut', 'bonds', 'abrade', 'closed'] as const).map((state) => (
          <StatePattern key={state} id={`${uid}-${state}`} state={state} scale={0.8} />
        ))}
      </defs>
      {base > 0 && <rect x={0} y={BASE - base} width={width} height={base} fill="currentColor" opacity=".3" />}
      {stack.map(({ step, hex, task, top, bottom }, i) => {
        const next = coats[i + 1];
        const until = next ? next.step.start : seen.to;
        const from = x(step.start);
        return (
          <g key={step.task}>
            <path
              d={`M${from} ${bottom}L${Math.max(from + 1, x(step.end))} ${top}H${width}V${bottom}Z`}
              fill={hex}
              stroke="currentColor"
              strokeWidth={task && selected === task.id ? 2.5 : 0.7}
            />
            <WindowEdge step={step} until={until} top={top} x={x} uid={uid} last={!next} />
            {task && locked.has(task.id) && (
              <text x={from + 3} y={top - EDGE - 1} fontSize="13" fill="currentColor">
                ⚿
              </text>
            )}
          </g>
        );
      })}
      {beside && (
        <path
          d={otherSteps(stack, beside, { base: BASE - base, x, width })}
          fill="none"
          stroke="var(--color-info)"
          strokeWidth="2"
          strokeDasharray="5 3"
        />
      )}
      <path d={`M0 ${BASE}H${width}`} stroke="currentColor" strokeWidth="1" />
      {works.map((w) => {
        const [from, to] = [x(w.start), x(w.end)];
        const abrade = w.kind === 'abrade';
        return (
          <path
            key={w.id}
            d={
              abrade
                ? `M${from} ${BASE + 10}l3 -8m1 8l3 -8m1 8l3 -8`
                : `M${from} ${BASE + 3}v7H${Math.max(from + 2, to)}v-7`
            }
            fill="none"
            stroke="currentColor"
            strokeWidth={selected === w.id ? 3 : 1.4}
          />
        );
      })}
    </g>
  );
});

/** Coats one on the other: where each begins and ends above the ground, px. */
function stacked(
  coats: readonly DrawnCoat[],
  base: number,
  scale: number,
): (DrawnCoat & { top: number; bottom: number })[] {
  return coats.map((coat, i) => {
    const under = base + coats.slice(0, i).reduce((sum, c) => sum + c.micron * scale, 0);
    return { ...coat, bottom: BASE - under, top: BASE - under - coat.micron * scale };
  });
}

/** The outline of the film in another plan: a step up where each coat is put on there. */
function otherSteps(
  stack: readonly (DrawnCoat & { top: number; bottom: number })[],
  beside: ReadonlyMap<string, number>,
  { base, x, width }: { base: number; x: (at: number) => number; width: number },
): string {
  const coats = stack.filter((c) => c.task);
  let path = `M-4 ${coats[0]?.bottom ?? base}`;
  for (const { step, top } of coats) {
    const at = beside.get(step.task);
    if (at !== undefined) path += `H${x(at).toFixed(1)}V${top}`;
  }
  return `${path}H${width + 4}`;
}

/** The window of a coat along its top edge, until the next coat lies on it. */
function WindowEdge({
  step,
  until,
  top,
  x,
  uid,
  last,
}: {
  step: FilmStep;
  until: number;
  top: number;
  x: (at: number) => number;
  uid: string;
  last: boolean;
}) {
  // Of the last coat: until she may be put into the water.
  const opens = last ? step.waterFrom : step.opensAt;
  const parts: { state: 'shut' | 'bonds' | 'abrade' | 'closed'; from: number; to: number }[] = [];
  const add = (state: (typeof parts)[number]['state'], from: number, to: number) => {
    if (to > from) parts.push({ state, from, to });
  };
  if (opens !== null) add('shut', step.end, Math.min(opens, until));
  if (!last && opens !== null) {
    const bonds = step.alwaysAbrade ? opens : (step.bondsUntil ?? until);
    add('bonds', opens, Math.min(bonds, until));
    add('abrade', Math.max(opens, bonds), Math.min(step.closesAt ?? until, until));
    if (step.closesAt !== null) add('closed', step.closesAt, until);
  }
  return (
    <>
      {parts.map(({ state, from, to }) => (
        <rect
          key={state}
          x={x(from)}
          y={top - EDGE}
          width={Math.max(0, x(to) - x(from))}
          height={EDGE}
          fill={`url(#${uid}-${state})`}
          stroke="currentColor"
          strokeWidth=".5"
        />
      ))}
    </>
  );
}
