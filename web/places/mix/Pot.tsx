import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { fillHeightsMm, filledL, type RoundPot } from '#core/mix/fillHeights';
import { figure } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import { attempt } from '../../parts/attempt';

const FILLS = ['#b9bdb9', '#d8c48f', '#c9b3a0', '#dfe3e4'];

/**
 * The pot with the mark to which each part fills it, to scale. Dragging the level, or the arrow keys, sizes the batch.
 * What does not fit is said, and drawn up to the rim.
 */
export function Pot({
  pours,
  pot,
  unit,
  onTotal,
}: {
  pours: readonly { name: string; litres: number }[];
  pot: RoundPot;
  unit: Unit;
  onTotal: (litres: number) => void;
}) {
  const { svg, ...d } = usePot({ unit, pours, pot, onTotal });
  const placed: number[] = [];
  return (
    <>
      <svg
        ref={svg}
        viewBox={`0 0 320 ${d.bottom + 8}`}
        className="block h-auto w-full max-w-sm touch-none"
        role="slider"
        tabIndex={0}
        aria-label="Level in the pot: drag to size the batch"
        aria-valuemin={0}
        aria-valuemax={Number(d.holdsL.toFixed(2))}
        aria-valuenow={Number(Math.min(d.total, d.holdsL).toFixed(2))}
        aria-valuetext={d.litresText(d.total)}
        aria-orientation="vertical"
        onKeyDown={d.keys}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          d.drag(e);
        }}
        onPointerMove={d.drag}
        style={{ cursor: 'ns-resize' }}
      >
        {d.marks.map((mark, i) => {
          const from = i === 0 ? 0 : (d.marks[i - 1]?.heightMm ?? 0);
          const y = d.y(mark.heightMm);
          const wanted = Math.min(y + 5, d.bottom - 2);
          const textY = placed.length === 0 ? wanted : Math.min(wanted, (placed[placed.length - 1] as number) - 19);
          placed.push(textY);
          const right = d.middle + d.half(mark.heightMm);
          return (
            <g key={mark.name}>
              <path
                d={`M${d.middle - d.half(from)} ${d.y(from)}H${d.middle + d.half(from)}L${right} ${y}H${d.middle - d.half(mark.heightMm)}Z`}
                fill={FILLS[i % FILLS.length]}
              />
              <path
                d={`M${d.middle - d.half(mark.heightMm) - 6} ${y}H${right + 6}L${d.textX - 8} ${textY - 5}h4`}
                stroke="currentColor"
                strokeWidth={i === d.marks.length - 1 ? 2.4 : 1.2}
                fill="none"
              />
              <text x={d.textX} y={textY} fontSize="16" fill="currentColor" className="narrow">
                {i === 0 ? '' : '+ '}
                {mark.name.length > 11 ? `${mark.name.slice(0, 10)}…` : mark.name} to{' '}
                <tspan fontWeight="600">{d.litresText(mark.upToL)}</tspan>
              </text>
            </g>
          );
        })}
        <path
          d={`M${d.middle - d.half(pot.depthMm)} ${d.y(pot.depthMm)}L${d.middle - d.half(0)} ${d.bottom}H${d.middle + d.half(0)}L${d.middle + d.half(pot.depthMm)} ${d.y(pot.depthMm)}`}
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
          strokeLinejoin="round"
        />
      </svg>
      {d.problem && (
        <p role="alert" className="border-l-4 border-warning pl-3">
          {d.problem}
        </p>
      )}
    </>
  );
}

/** A pot drawn to scale, and how a finger or the keys set what is in it. */
function usePot({ unit, pours, pot, onTotal }: Parameters<typeof Pot>[0]) {
  const { units } = useSettings();
  const litresText = (litres: number) => {
    const f = figure('volume', litres, units, undefined, unit);
    return `${f.number} ${f.unit}`;
  };
  const svg = useRef<SVGSVGElement>(null);
  const holdsL = filledL({ pot, heightMm: pot.depthMm });
  const total = pours.reduce((sum, p) => sum + p.litres, 0);
  const { value: heights, problem } = attempt(() => fillHeightsMm({ pot, volumesL: pours.map((p) => p.litres) }));
  const marks = pours.map((pour, i) => {
    const upToL = pours.slice(0, i + 1).reduce((sum, p) => sum + p.litres, 0);
    const heightMm = heights?.[i] ?? fillHeightsMm({ pot, volumesL: [Math.min(upToL, holdsL)] })[0] ?? 0;
    return { name: pour.name, upToL, heightMm };
  });
  const bottom = 200;
  const widest = Math.max(pot.topMm, pot.bottomMm);
  const scale = Math.min(128 / widest, (bottom - 14) / pot.depthMm);
  const middle = 14 + (widest * scale) / 2;
  const half = (heightMm: number) =>
    ((pot.bottomMm + ((pot.topMm - pot.bottomMm) * heightMm) / pot.depthMm) * scale) / 2;
  const y = (heightMm: number) => bottom - heightMm * scale;
  const drag = (e: PointerEvent<SVGSVGElement>) => {
    const rect = svg.current?.getBoundingClientRect();
    if (e.buttons !== 1 || !rect) return;
    const unitY = ((e.clientY - rect.top) / rect.height) * (bottom + 8);
    const heightMm = Math.min(pot.depthMm, Math.max(0, (bottom - unitY) / scale));
    onTotal(round(filledL({ pot, heightMm })));
  };
  const keys = (e: KeyboardEvent) => {
    const step = STEPS_L[e.key];
    if (step === undefined) return;
    e.preventDefault();
    onTotal(round(Math.min(holdsL, Math.max(0, total + step))));
  };
  const textX = middle + (widest * scale) / 2 + 24;
  return { svg, bottom, middle, half, y, marks, total, holdsL, litresText, keys, drag, problem, textX };
}

const STEPS_L: Readonly<Record<string, number>> = {
  ArrowUp: 0.05,
  ArrowRight: 0.05,
  ArrowDown: -0.05,
  ArrowLeft: -0.05,
  PageUp: 0.5,
  PageDown: -0.5,
};

const round = (litres: number) => Math.round(litres * 100) / 100;
