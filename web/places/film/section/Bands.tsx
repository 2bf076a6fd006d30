import type { Layer } from '#core/model/layer';
import { LEFT, type Band } from './layout';
import type { SectionCoat } from './coat';
import type { FilmGrip } from './useFilmGrip';

/** Narrower than this a column has no room for words. */
export const WORDS_PX = 58;
/** How far above and below itself a face is taken hold of. */
const HOLD = 11;

/** From a layer to its row. */
export function Leader({
  at,
  from,
  to,
  row,
  strong,
}: {
  at: Band;
  from: number;
  to: number;
  row: number;
  strong: boolean;
}) {
  return (
    <polyline
      points={`${from},${at.y + at.h / 2} ${to - 8},${row} ${to},${row}`}
      stroke="currentColor"
      fill="none"
      strokeOpacity={strong ? undefined : 0.45}
      strokeWidth={strong ? 1.6 : undefined}
    />
  );
}

interface PlannedProps {
  at: Band;
  /** Height of what abrading takes off, px. */
  lost: number;
  width: number;
  layer: Layer;
  on: boolean;
  strong: boolean;
  /** Paint server of what is lost. */
  hatching: string;
  onPick: () => void;
}

/** One coat as planned; what abrading takes off is hatched at its top. */
export function PlannedBand({ at, lost, width, layer, on, strong, hatching, onPick }: PlannedProps) {
  return (
    <>
      <rect
        x={LEFT}
        y={at.y}
        width={width}
        height={Math.max(at.h, 0.5)}
        fill={layer.colourHex}
        fillOpacity={on ? 1 : 0.6}
        stroke="currentColor"
        strokeWidth={strong ? 2.5 : 0.8}
        strokeDasharray={on ? undefined : '6 4'}
        style={{ cursor: 'pointer' }}
        onClick={onPick}
      />
      {lost > 0.4 && <rect x={LEFT} y={at.y} width={width} height={lost} fill={hatching} pointerEvents="none" />}
    </>
  );
}

interface MeasuredProps {
  coat: SectionCoat;
  at: Band;
  left: number;
  right: number;
  strong: boolean;
  /** Paint server of what was not combed. */
  hatching: string;
  film: (micron: number) => string;
  onPick: () => void;
}

/** One coat as the comb found it, or hatched where nothing was combed. */
export function MeasuredBand({ coat, at, left, right, strong, hatching, film, onPick }: MeasuredProps) {
  return (
    <g onClick={onPick} style={{ cursor: 'pointer' }}>
      <rect
        x={left}
        y={at.y}
        width={right - left}
        height={Math.max(at.h, 0.5)}
        fill={coat.layer.colourHex}
        stroke="currentColor"
        strokeWidth={strong ? 2.5 : 0.8}
      />
      {coat.measuredMicron === null && <rect x={left} y={at.y} width={right - left} height={at.h} fill={hatching} />}
      {at.h > 15 && right - left > WORDS_PX && (
        <text
          x={(left + right) / 2}
          y={at.y + at.h / 2 + 5}
          textAnchor="middle"
          fontSize="14"
          className="narrow"
          fill="#14171a"
          stroke="#f6f3ec"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {coat.measuredMicron === null ? 'not combed' : film(coat.measuredMicron)}
        </text>
      )}
    </g>
  );
}

interface FaceProps {
  layer: Layer;
  label: string;
  y: number;
  width: number;
  film: (micron: number) => string;
  grip: FilmGrip;
}

/** Where the upper face of a planned coat is taken hold of, and its handle. */
export function Face({ layer, label, y, width, film, grip }: FaceProps) {
  const x = LEFT + 10;
  return (
    <>
      <rect
        x={LEFT}
        y={y - HOLD}
        width={width}
        height={2 * HOLD}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-orientation="vertical"
        aria-valuemin={1}
        aria-valuemax={5000}
        aria-valuenow={Math.round(layer.dftMicron)}
        aria-valuetext={film(layer.dftMicron)}
        fill="none"
        pointerEvents="all"
        style={{ cursor: 'ns-resize', touchAction: 'none' }}
        onPointerDown={(e) => grip.grab(e, layer.id, layer.dftMicron)}
        onPointerMove={grip.drag}
        onPointerUp={grip.drop}
        onPointerCancel={grip.drop}
        onKeyDown={(e) => grip.nudge(e, layer.id, layer.dftMicron)}
        onKeyUp={(e) => e.key !== 'Tab' && grip.done()}
      />
      <path d={`M${x} ${y}h22v4h-22v-8h22v4`} fill="var(--color-base-100)" stroke="currentColor" pointerEvents="none" />
    </>
  );
}
