import { useId } from 'react';
import type { ZoneState } from '#core/coat/zoneState';

/** How a state is drawn: by pattern first, so that it survives sunlight, grey printing and colour blindness. */
const MARKS: Record<ZoneState, string | null> = {
  noBuildUp: null,
  leftBare: null,
  ready: null,
  // Shut: close level lines.
  shut: 'M0 2h8M0 6h8',
  // Bonds as is: dots.
  bonds: 'M2 2h.01M6 6h.01',
  // Abrade first: slanting strokes, like scratches.
  abrade: 'M-2 6l8-8M2 10l8-8',
  closed: 'M-2 6l8-8M2 10l8-8M-2 2l8 8M2-2l8 8',
  inHand: 'M2 0v8M6 0v8',
  complete: null,
  noTimes: 'M1 4h2',
  noWeather: 'M1 4h2',
  waits: null,
  // Open work: a saw's teeth. No other state has an angle in it.
  openWork: 'M-2 7L2 1L6 7L10 1',
  // Not ready: rings, like drops that fell on it.
  unready: 'M4 1.8a2.2 2.2 0 1 0 .01 0',
};

export const STATE_KEY: readonly ZoneState[] = ['shut', 'bonds', 'abrade', 'closed', 'inHand', 'openWork', 'unready'];

export function StatePattern({ id, state, scale = 1 }: { id: string; state: ZoneState; scale?: number }) {
  const d = MARKS[state];
  if (d === null) return null;
  return (
    <pattern id={id} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform={`scale(${scale})`}>
      <path
        d={d}
        stroke="#fff"
        strokeOpacity=".75"
        strokeWidth={state === 'bonds' ? 4.2 : 2.8}
        strokeLinecap="round"
        fill="none"
      />
      <path d={d} stroke="#14171a" strokeWidth={state === 'bonds' ? 2.6 : 1.3} strokeLinecap="round" fill="none" />
    </pattern>
  );
}

export function hasPattern(state: ZoneState): boolean {
  return MARKS[state] !== null;
}

/** A small swatch: the coat's colour under the state's pattern. */
export function StateSwatch({ state, colour, size = 28 }: { state: ZoneState; colour: string | null; size?: number }) {
  const id = useId();
  return (
    <svg width={size} height={size} viewBox="0 0 28 28" aria-hidden="true" className="shrink-0">
      <defs>
        {/* As coarse on the screen in a small swatch as in a large one. */}
        <StatePattern id={id} state={state} scale={Math.max(1, 28 / size)} />
      </defs>
      <rect
        x="1"
        y="1"
        width="26"
        height="26"
        fill={colour ?? 'var(--color-base-100)'}
        stroke="currentColor"
        strokeDasharray={colour ? undefined : '3 2'}
      />
      {hasPattern(state) && <rect x="1" y="1" width="26" height="26" fill={`url(#${id})`} />}
    </svg>
  );
}
