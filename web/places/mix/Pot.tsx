import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { potMarks } from '#core/mix/pot';
import { figure } from '#core/units/format';
import type { Unit } from '#core/units/quantities';
import { useSettings } from '../../data/settings';

const FILLS = ['#b9bdb9', '#d8c48f', '#c9b3a0', '#dfe3e4'];

/**
 * The pot with the mark to which each part fills it, to scale for its diameter. Dragging the level, or the
 * arrow keys, sizes the batch.
 */
export function Pot({
  pours,
  diameterM,
  unit,
  largestL,
  onTotal,
}: {
  pours: readonly { name: string; litres: number }[];
  diameterM: number;
  unit: Unit;
  largestL: number;
  onTotal: (litres: number) => void;
}) {
  const { svg, ...pot } = usePot({ unit, pours, diameterM, largestL, onTotal });

  const placed: number[] = [];
  return (
    <svg
      ref={svg}
      viewBox={`0 ${pot.top} ${pot.box.width} ${pot.box.bottom + 8 - pot.top}`}
      className="block h-auto w-full max-w-sm touch-none"
      role="slider"
      tabIndex={0}
      aria-label="Level in the pot: drag to size the batch"
      aria-valuemin={0}
      aria-valuemax={Number(largestL.toFixed(2))}
      aria-valuenow={Number(pot.total.toFixed(2))}
      aria-valuetext={pot.litresText(pot.total)}
      aria-orientation="vertical"
      onKeyDown={pot.keys}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        pot.drag(e);
      }}
      onPointerMove={pot.drag}
      style={{ cursor: 'ns-resize' }}
    >
      {pot.marks.map((mark, i) => {
        const from = pot.y(i === 0 ? 0 : (pot.marks[i - 1]?.heightM ?? 0));
        const to = pot.y(mark.heightM);
        const wanted = to + 5;
        const textY =
          placed.length === 0
            ? Math.min(wanted, pot.box.bottom - 2)
            : Math.min(wanted, (placed[placed.length - 1] as number) - 19);
        placed.push(textY);
        return (
          <g key={mark.name}>
            <rect
              x={pot.box.left}
              y={to}
              width={pot.w}
              height={Math.max(0, from - to)}
              fill={FILLS[i % FILLS.length]}
            />
            <path
              d={`M${pot.box.left - 6} ${to}H${pot.box.left + pot.w + 6}L${pot.box.left + pot.w + 16} ${textY - 5}h4`}
              stroke="currentColor"
              strokeWidth={i === pot.marks.length - 1 ? 2.4 : 1.2}
              fill="none"
            />
            <text x={pot.box.left + pot.w + 24} y={textY} fontSize="16" fill="currentColor" className="narrow">
              {i === 0 ? '' : '+ '}
              {mark.name.length > 11 ? `${mark.name.slice(0, 10)}…` : mark.name} to{' '}
              <tspan fontWeight="600">{pot.litresText(mark.upToL)}</tspan>
            </text>
          </g>
        );
      })}
      <path
        d={`M${pot.box.left} ${pot.rim}V${pot.box.bottom}h${pot.w}V${pot.rim}`}
        fill="none"
        stroke="currentColor"
        strokeWidth="3"
        strokeLinejoin="round"
      />
    </svg>
  );
}

/** A pot drawn to scale, and how a finger or the keys set what is in it. */
function usePot({ unit, pours, diameterM, largestL, onTotal }: Parameters<typeof Pot>[0]) {
  const { units } = useSettings();
  const litresText = (litres: number) => {
    const f = figure('volume', litres, units, undefined, unit);
    return `${f.number} ${f.unit}`;
  };
  const svg = useRef<SVGSVGElement>(null);
  const marks = potMarks({ pours, diameterM });
  const total = marks[marks.length - 1]?.upToL ?? 0;
  const baseM2 = (Math.PI * diameterM ** 2) / 4;
  // Room above the level, so that it can be pulled up; the pot keeps true proportions until it must be cut short.
  const shownM = Math.max((total / 1000 / baseM2) * 1.35, diameterM * 0.5);
  const box = { width: 320, height: 250, bottom: 240, left: 20, inner: 132 };
  const scale = Math.min(box.inner / diameterM, (box.height - 22) / shownM);
  const w = diameterM * scale;
  const rim = box.bottom - shownM * scale;
  const top = rim - 12;
  const y = (heightM: number) => box.bottom - heightM * scale;
  const litresAt = (clientY: number) => {
    const rect = svg.current?.getBoundingClientRect();
    if (!rect) return total;
    const unitY = top + ((clientY - rect.top) / rect.height) * (box.bottom + 8 - top);
    return Math.min(largestL, Math.max(0, ((box.bottom - unitY) / scale) * baseM2 * 1000));
  };
  const drag = (e: PointerEvent<SVGSVGElement>) => {
    if (e.buttons !== 1) return;
    onTotal(round(litresAt(e.clientY)));
  };
  const keys = (e: KeyboardEvent) => {
    const step =
      e.key === 'ArrowUp' || e.key === 'ArrowRight'
        ? 0.05
        : e.key === 'ArrowDown' || e.key === 'ArrowLeft'
          ? -0.05
          : e.key === 'PageUp'
            ? 0.5
            : e.key === 'PageDown'
              ? -0.5
              : 0;
    if (step === 0) return;
    e.preventDefault();
    onTotal(round(Math.min(largestL, Math.max(0, total + step))));
  };
  return { svg, top, box, total, litresText, keys, drag, marks, y, w, rim };
}

const round = (litres: number) => Math.round(litres * 100) / 100;
