import { computed, type ReadonlySignal } from '@preact/signals-core';
import { useId, useMemo } from 'react';
import type { Layer, LayerQuantities } from '#core/film/layer';
import type { Substrate } from '#core/hull/zones';
import { formatQuantity } from '#core/units/format';
import { MIL_MICRON } from '#core/units/quantities';
import { useSettings } from '../../../data/settings';
import { setText, useFollowing } from '../../../parts/live';
import { bandsOf, layoutOf, niceStep, rowY, TOP, type Band as BandAt, type Pitch } from './layout';
import { useFilmHand, type FilmHand } from './useFilmHand';

type Drawn = Pick<BandAt, 'y' | 'h'>;

export interface SectionCoat {
  readonly layer: Layer;
  readonly name: string;
  /** On the boat: a coat was logged. */
  readonly on: boolean;
  /** Dry film the comb readings come to; null where nothing was combed. */
  readonly measuredMicron: number | null;
  /** What is left of it after the abrading above. */
  readonly keptMicron: number;
  /** What it takes; null where that cannot be worked out, or where there is no zone. */
  readonly takes: Pick<LayerQuantities, 'wetMicron' | 'spreadingRateM2PerL' | 'litres'> | null;
}

/** Drawn by kind: fill and strokes of each substrate. */
const SUBSTRATE_FILL: Record<Substrate, string> = {
  gelcoat: '#dfe6e4',
  laminate: '#d9d5b8',
  steel: '#a9adb0',
  aluminium: '#cdd2d6',
  timber: '#c9a878',
  plywood: '#d1b487',
  sealedTimber: '#b98f5a',
  ferrocement: '#c2c0b8',
};
const SUBSTRATE_MARK: Record<Substrate, string> = {
  gelcoat: 'M0 3h16M0 8q4-3 8 0t8 0M0 13q4-3 8 0t8 0',
  laminate: 'M0 4q4-4 8 0t8 0M0 12q4-4 8 0t8 0',
  steel: 'M0 16L16 0M-4 4l8-8M12 20l8-8',
  aluminium: 'M0 16L16 0',
  timber: 'M0 4q8 3 16 0M0 11q8-3 16 0',
  plywood: 'M0 5h16M0 10h16M0 15h16',
  sealedTimber: 'M0 4q8 3 16 0M0 11q8-3 16 0',
  ferrocement: 'M3 3h2M10 6h2M5 11h2M12 13h2',
};

const LEFT = 40;
const LEADER = 24;
/** Narrower than this a column has no room for words. */
const WORDS_PX = 58;
/** How far above and below itself a face is taken hold of. */
const HOLD = 11;
/** A face that stands here is out of sight, and all it is taken hold of by. */
const OFF_SHEET = -HOLD - 1;

/**
 * The coats cut through, to scale in µm over their substrate: planned at the left, measured at the right as coats get
 * logged. The upper face of a planned coat is dragged, or moved by arrow keys, to make it thicker or thinner.
 */
export function Stack({
  coats: live,
  substrate,
  targetMicron,
  selected,
  width,
  pitch,
  onPick,
  onFilm,
  onFilmDone,
}: {
  coats: ReadonlySignal<readonly SectionCoat[]>;
  substrate: Substrate;
  targetMicron: number | null;
  selected: string | null;
  width: number;
  pitch: Pitch;
  onPick: (layerId: string) => void;
  /** While it moves; then once it is let go. Left out where nothing may be changed. */
  onFilm?: ((layerId: string, micron: number) => void) | undefined;
  onFilmDone?: (() => void) | undefined;
}) {
  const uid = useId();
  const { units } = useSettings();
  const film = (micron: number) => formatQuantity('film', micron, units);
  const us = units.except?.film === 'us' || (units.except?.film === undefined && units.system === 'us');
  const coats = live.peek();
  const anyOn = coats.some((c) => c.on);
  const measured = coats.map((c) => (c.on ? (c.measuredMicron ?? c.layer.dftMicron) : 0));
  const measuredTotal = measured.reduce((a, b) => a + b, 0);
  const fits = Math.max(filmOf(coats), measuredTotal, targetMicron ?? 0) * 1.04;
  const { layout, hand } = useFilmHand({
    layout: layoutOf({ coats: coats.length, micron: fits, pitch }),
    us,
    onFilm,
    onFilmDone,
  });
  const { groundY, height, scale } = layout;
  const right = width - LEADER;
  const split = anyOn ? LEFT + (right - LEFT) * 0.6 : right;
  const roomForWords = right - LEFT > 3 * WORDS_PX;
  const laid = bandsOf(measured, layout);
  const unread = `url(#${uid}-unread)`;
  const planned = useMemo(
    () =>
      computed(() =>
        bandsOf(
          live.value.map((c) => c.layer.dftMicron),
          { groundY, scale },
        ).map(onSheet),
      ),
    [live, groundY, scale],
  );
  const bandOf = (i: number) => planned.value[i] as Drawn;
  const coatOf = (i: number) => live.value[i] as SectionCoat;
  const lostOf = (i: number) => bandOf(i).h - coatOf(i).keptMicron * scale;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      className="box-of-its-own block touch-pan-y select-none"
      role="group"
      aria-label="Section to scale"
      aria-describedby={`${uid}-planned`}
    >
      <rect y={2 * OFF_SHEET} width={width} height={height - 2 * OFF_SHEET} fill="var(--color-base-100)" />
      <Ground uid={uid} substrate={substrate} y={groundY} width={right - LEFT} height={height - groundY - 1} />
      {roomForWords && (
        <text x={LEFT} y={14} fontSize="15" className="narrow" fill="currentColor">
          planned
        </text>
      )}
      {anyOn && roomForWords && (
        <text x={right} y={14} fontSize="15" textAnchor="end" className="narrow" fill="currentColor">
          measured
        </text>
      )}
      <Ruler groundY={groundY} scale={scale} unitMicron={us ? MIL_MICRON : 1} />
      {coats.map(({ layer, on }, i) => (
        <Leader
          key={layer.id}
          at={() => bandOf(i)}
          from={on ? right : split}
          to={width}
          row={rowY(coats.length - 1 - i, pitch)}
          strong={layer.id === selected}
        />
      ))}
      {coats.map(({ layer, on }, i) => (
        <Band
          key={layer.id}
          at={() => bandOf(i)}
          lost={() => lostOf(i)}
          width={split - LEFT}
          colourHex={layer.colourHex}
          on={on}
          strong={layer.id === selected}
          lostFill={unread}
          onPick={() => onPick(layer.id)}
        />
      ))}
      {anyOn &&
        coats.map((coat, i) => {
          const band = laid[i] as Drawn;
          if (!coat.on) return null;
          return (
            <g key={coat.layer.id} onClick={() => onPick(coat.layer.id)} style={{ cursor: 'pointer' }}>
              <rect
                x={split}
                y={band.y}
                width={right - split}
                height={Math.max(band.h, 0.5)}
                fill={coat.layer.colourHex}
                stroke="currentColor"
                strokeWidth={coat.layer.id === selected ? 2.5 : 0.8}
              />
              {coat.measuredMicron === null && (
                <rect x={split} y={band.y} width={right - split} height={band.h} fill={unread} />
              )}
              {band.h > 15 && right - split > WORDS_PX && (
                <text
                  x={(split + right) / 2}
                  y={band.y + band.h / 2 + 5}
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
        })}
      {targetMicron !== null && <Target y={groundY - targetMicron * scale} right={right} told={film(targetMicron)} />}
      <Total
        id={`${uid}-planned`}
        x={roomForWords ? LEFT + 64 : LEFT}
        told={() => (filmOf(live.value) > 0 ? film(filmOf(live.value)) : '')}
      />
      {onFilm &&
        coats.map(
          ({ layer, name, on }, i) =>
            !on && (
              <Face
                key={layer.id}
                layerId={layer.id}
                label={`Dry film of coat ${i + 1}, ${name}`}
                y={() => bandOf(i).y}
                micron={() => coatOf(i).layer.dftMicron}
                told={film}
                width={split - LEFT}
                hand={hand}
              />
            ),
        )}
    </svg>
  );
}

/** A film that is held can rise beyond the upper edge; drawn no higher than out of sight, so that the bounds of the drawing stay. */
function onSheet({ y, h }: Drawn): Drawn {
  const top = Math.max(y, OFF_SHEET);
  return { y: top, h: Math.max(y + h, OFF_SHEET) - top };
}

const filmOf = (coats: readonly SectionCoat[]): number => coats.reduce((sum, c) => sum + c.layer.dftMicron, 0);

const corners = (y: number, width: number, height: number): string =>
  `${LEFT},${y} ${LEFT + width},${y} ${LEFT + width},${y + height} ${LEFT},${y + height}`;

/*
 * What moves are polygons and lines, and none is moved by a transform: corners are a shape's alone, where `transform`, `y` or `d`
 * are a style's too, for which styles would be matched and layers made anew at every frame.
 */
const useCorners = <E extends SVGPolygonElement | SVGPolylineElement>(points: () => string) =>
  useFollowing<E, string>(points, (shape, value) => shape.setAttribute('points', value));

/** From a layer to its row. */
function Leader({
  at,
  from,
  to,
  row,
  strong,
}: {
  at: () => Drawn;
  from: number;
  to: number;
  row: number;
  strong: boolean;
}) {
  const ref = useCorners<SVGPolylineElement>(() => `${from},${at().y + at().h / 2} ${to - 8},${row} ${to},${row}`);
  return (
    <polyline
      ref={ref}
      stroke="currentColor"
      fill="none"
      strokeOpacity={strong ? undefined : 0.45}
      strokeWidth={strong ? 1.6 : undefined}
    />
  );
}

function Total({ id, x, told }: { id: string; x: number; told: () => string }) {
  return (
    <text
      ref={useFollowing<SVGTextElement, string>(told, setText)}
      id={id}
      x={x}
      y={14}
      fontSize="15"
      fontWeight="600"
      fill="currentColor"
      className="narrow"
    />
  );
}

/** One planned coat, or one on the boat; what abrading takes off is hatched at its top. */
function Band({
  at,
  lost,
  width,
  colourHex,
  on,
  strong,
  lostFill,
  onPick,
}: {
  at: () => Drawn;
  lost: () => number;
  width: number;
  colourHex: string;
  on: boolean;
  strong: boolean;
  lostFill: string;
  onPick: () => void;
}) {
  const whole = useCorners<SVGPolygonElement>(() => corners(at().y, width, Math.max(at().h, 0.5)));
  const hatched = useCorners<SVGPolygonElement>(() => (lost() > 0.4 ? corners(at().y, width, lost()) : ''));
  return (
    <>
      <polygon
        ref={whole}
        fill={colourHex}
        fillOpacity={on ? 1 : 0.6}
        stroke="currentColor"
        strokeWidth={strong ? 2.5 : 0.8}
        strokeDasharray={on ? undefined : '6 4'}
        style={{ cursor: 'pointer' }}
        onClick={onPick}
      />
      <polygon ref={hatched} fill={lostFill} pointerEvents="none" />
    </>
  );
}

/** Where the upper face of a planned coat is taken hold of, and its handle. */
function Face({
  layerId,
  label,
  y,
  micron,
  told,
  width,
  hand,
}: {
  layerId: string;
  label: string;
  y: () => number;
  micron: () => number;
  told: (micron: number) => string;
  width: number;
  hand: FilmHand;
}) {
  const ref = useCorners<SVGPolygonElement>(() => corners(y() - HOLD, width, 2 * HOLD));
  const handle = useCorners<SVGPolygonElement>(() => handleAt(LEFT + 10, y()));
  useFollowing<SVGPolygonElement, number>(
    micron,
    (face, film) => {
      face.setAttribute('aria-valuenow', String(Math.round(film)));
      face.setAttribute('aria-valuetext', told(film));
    },
    ref,
  );
  return (
    <>
      <polygon
        ref={ref}
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-orientation="vertical"
        aria-valuemin={1}
        aria-valuemax={5000}
        fill="none"
        pointerEvents="all"
        style={{ cursor: 'ns-resize', touchAction: 'none' }}
        onPointerDown={(e) => hand.grab(e, layerId, micron())}
        onPointerMove={hand.drag}
        onPointerUp={hand.drop}
        onPointerCancel={hand.drop}
        onKeyDown={(e) => hand.nudge(e, layerId, micron())}
        onKeyUp={(e) => e.key !== 'Tab' && hand.done()}
      />
      <polygon ref={handle} fill="var(--color-base-100)" stroke="currentColor" pointerEvents="none" />
    </>
  );
}

/** A box with a line across it, drawn in one go. */
const handleAt = (x: number, y: number): string =>
  `${x},${y} ${x + 22},${y} ${x + 22},${y + 4} ${x},${y + 4} ${x},${y - 4} ${x + 22},${y - 4} ${x + 22},${y}`;

/** The substrate by kind, and the hatching that the layers above share. */
function Ground({
  uid,
  substrate,
  y,
  width,
  height,
}: {
  uid: string;
  substrate: Substrate;
  y: number;
  width: number;
  height: number;
}) {
  return (
    <>
      <defs>
        <pattern id={`${uid}-sub`} width="16" height="16" patternUnits="userSpaceOnUse">
          <rect width="16" height="16" fill={SUBSTRATE_FILL[substrate]} />
          <path d={SUBSTRATE_MARK[substrate]} stroke="#3a3a36" strokeWidth=".8" fill="none" />
        </pattern>
        <pattern id={`${uid}-unread`} width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M-1 8L8-1" stroke="#14171a" strokeOpacity=".45" strokeWidth="1" />
        </pattern>
      </defs>
      <rect x={LEFT} y={y} width={width} height={height} fill={`url(#${uid}-sub)`} stroke="currentColor" />
    </>
  );
}

/** Round figures in the unit that is shown, from the substrate up. */
function Ruler({ groundY, scale, unitMicron }: { groundY: number; scale: number; unitMicron: number }) {
  const most = (groundY - TOP) / scale / unitMicron;
  const step = niceStep(most);
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => {
    const y = groundY - i * step * unitMicron * scale;
    return (
      <g key={i} aria-hidden="true">
        <path d={`M${LEFT - 5} ${y}h5`} stroke="currentColor" />
        <text x={LEFT - 8} y={y + 5} textAnchor="end" fontSize="14" fill="currentColor" className="narrow">
          {i * step}
        </text>
      </g>
    );
  });
}

function Target({ y, right, told }: { y: number; right: number; told: string }) {
  return (
    <g>
      <path d={`M${LEFT - 4} ${y}H${right}`} stroke="currentColor" strokeWidth="1.6" strokeDasharray="2 3" />
      <text
        x={LEFT + 4}
        y={y - 4}
        fontSize="14"
        className="narrow"
        fill="currentColor"
        stroke="var(--color-base-100)"
        strokeWidth="3.5"
        paintOrder="stroke"
      >
        target {told}
      </text>
    </g>
  );
}
