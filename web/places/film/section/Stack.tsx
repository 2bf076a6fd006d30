import type { ReadonlySignal } from '@preact/signals-core';
import { useId, type ReactNode } from 'react';
import type { Layer, LayerQuantities } from '#core/film/layer';
import type { Substrate } from '#core/hull/zones';
import { formatQuantity } from '#core/units/format';
import { MIL_MICRON } from '#core/units/quantities';
import { useSettings } from '../../../data/settings';
import { setText, useFollowing } from '../../../parts/live';
import { bandsOf, layoutOf, niceStep, rowY, TOP, type Band as Place, type Pitch } from './layout';
import { useFilmHand, type FilmHand } from './useFilmHand';

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
const SUBSTRATE_FILL: Record<Substrate, string> = { gelcoat: '#dfe6e4', laminate: '#d9d5b8', steel: '#a9adb0', aluminium: '#cdd2d6', timber: '#c9a878', plywood: '#d1b487', sealedTimber: '#b98f5a', ferrocement: '#c2c0b8' };
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

/**
 * The coats cut through, to scale in µm over their substrate: planned at the left, measured at the right as coats get
 * logged. The upper face of a planned coat is dragged, or moved by arrow keys, to make it thicker or thinner.
 */
export function Stack({ coats: live, substrate, targetMicron, selected, width, pitch, onPick, onFilm, onFilmDone }: {
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
  const { layout, hand } = useFilmHand({ layout: layoutOf({ coats: coats.length, micron: fits, pitch }), us, onFilm, onFilmDone });
  const { groundY, height, scale } = layout;
  const right = width - LEADER;
  const split = anyOn ? LEFT + (right - LEFT) * 0.6 : right;
  const roomForWords = right - LEFT > 3 * WORDS_PX;
  const laid = bandsOf(measured, layout);
  const unread = `url(#${uid}-unread)`;
  const lifts = (i: number) => () => (i < 0 ? groundY : -(live.value[i] as SectionCoat).layer.dftMicron * scale);
  // From each layer to its row; all in one path, so that what is lifted changes no more than that.
  const leaders = (which: (coat: SectionCoat) => boolean) => () => {
    const bands = bandsOf(live.value.map((c) => c.layer.dftMicron), layout);
    return live.value.map((c, i) => (which(c) ? `M${c.on ? right : split} ${(bands[i] as Place).y + (bands[i] as Place).h / 2}L${width - 8} ${rowY(coats.length - 1 - i, pitch)}h8` : '')).join('');
  };
  const whole = useFollowing<SVGSVGElement, number>(
    () => filmOf(live.value),
    (svg, total) => svg.setAttribute('aria-label', `Section to scale: ${total > 0 ? `${film(total)} planned` : 'nothing planned yet'}`),
  );

  return (
    <svg ref={whole} viewBox={`0 0 ${width} ${height}`} width={width} height={height} className="box-of-its-own block touch-pan-y select-none" role="group">
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
      <Leaders d={leaders((c) => c.layer.id !== selected)} />
      <Leaders d={leaders((c) => c.layer.id === selected)} strong />
      <Pile coats={coats} lifts={lifts} draw={(i) => <Band coat={() => live.value[i] as SectionCoat} scale={scale} width={split - LEFT} strong={coats[i]?.layer.id === selected} lostFill={unread} onPick={onPick} />} />
      {anyOn &&
        coats.map((coat, i) => {
          const band = laid[i] as { y: number; h: number };
          if (!coat.on) return null;
          return (
            <g key={coat.layer.id} onClick={() => onPick(coat.layer.id)} style={{ cursor: 'pointer' }}>
              <rect x={split} y={band.y} width={right - split} height={Math.max(band.h, 0.5)} fill={coat.layer.colourHex} stroke="currentColor" strokeWidth={coat.layer.id === selected ? 2.5 : 0.8} />
              {coat.measuredMicron === null && <rect x={split} y={band.y} width={right - split} height={band.h} fill={unread} />}
              {band.h > 15 && right - split > WORDS_PX && (
                <text x={(split + right) / 2} y={band.y + band.h / 2 + 5} textAnchor="middle" fontSize="14" className="narrow" fill="#14171a" stroke="#f6f3ec" strokeWidth="3" paintOrder="stroke">
                  {coat.measuredMicron === null ? 'not combed' : film(coat.measuredMicron)}
                </text>
              )}
            </g>
          );
        })}
      {targetMicron !== null && <Target y={groundY - targetMicron * scale} right={right} told={film(targetMicron)} />}
      <Total x={roomForWords ? LEFT + 64 : LEFT} told={() => (filmOf(live.value) > 0 ? film(filmOf(live.value)) : '')} />
      {onFilm && <Pile coats={coats} lifts={lifts} draw={(i) => !coats[i]?.on && <Face coat={() => live.value[i] as SectionCoat} number={i + 1} told={film} scale={scale} width={split - LEFT} hand={hand} />} />}
    </svg>
  );
}

const filmOf = (coats: readonly SectionCoat[]): number => coats.reduce((sum, c) => sum + c.layer.dftMicron, 0);

const move = (element: Element, y: number): void => element.setAttribute('transform', `translate(0 ${y})`);

/** Each coat is drawn within the one beneath it, from that one's upper face up: one that gets thicker lifts the others as one. */
function Pile({ coats, lifts, draw }: { coats: readonly SectionCoat[]; lifts: (i: number) => () => number; draw: (i: number) => ReactNode }) {
  return coats.reduceRight<ReactNode>(
    (above, coat, i) => (
      <Lifted key={coat.layer.id} by={lifts(i - 1)}>
        {draw(i)}
        {above}
      </Lifted>
    ),
    null,
  );
}

function Lifted({ by, children }: { by: () => number; children: ReactNode }) {
  return <g ref={useFollowing<SVGGElement, number>(by, move)}>{children}</g>;
}

function Leaders({ d, strong = false }: { d: () => string; strong?: boolean }) {
  const ref = useFollowing<SVGPathElement, string>(d, (path, value) => path.setAttribute('d', value));
  return <path ref={ref} stroke="currentColor" fill="none" strokeOpacity={strong ? undefined : 0.45} strokeWidth={strong ? 1.6 : undefined} />;
}

function Total({ x, told }: { x: number; told: () => string }) {
  return <text ref={useFollowing<SVGTextElement, string>(told, setText)} x={x} y={14} fontSize="15" fontWeight="600" fill="currentColor" className="narrow" />;
}

/** One planned coat, or one on the boat, its lower face at 0; what abrading takes off is hatched at its top. */
function Band({ coat, scale, width, strong, lostFill, onPick }: { coat: () => SectionCoat; scale: number; width: number; strong: boolean; lostFill: string; onPick: (layerId: string) => void }) {
  const { layer, on } = coat();
  const thick = () => coat().layer.dftMicron * scale;
  const whole = useFollowing<SVGRectElement, number>(thick, (rect, h) => {
    rect.setAttribute('y', String(-h));
    rect.setAttribute('height', String(Math.max(h, 0.5)));
  });
  const lost = useFollowing<SVGPathElement, string>(
    () => {
      const h = (coat().layer.dftMicron - coat().keptMicron) * scale;
      return h > 0.4 ? `M${LEFT} ${-thick()}h${width}v${h}h${-width}z` : '';
    },
    (path, d) => path.setAttribute('d', d),
  );
  return (
    <>
      <rect ref={whole} x={LEFT} width={width} fill={layer.colourHex} fillOpacity={on ? 1 : 0.6} stroke="currentColor" strokeWidth={strong ? 2.5 : 0.8} strokeDasharray={on ? undefined : '6 4'} style={{ cursor: 'pointer' }} onClick={() => onPick(layer.id)} />
      <path ref={lost} fill={lostFill} pointerEvents="none" />
    </>
  );
}

/** The upper face of a planned coat. */
function Face({ coat, number, told, scale, width, hand }: { coat: () => SectionCoat; number: number; told: (micron: number) => string; scale: number; width: number; hand: FilmHand }) {
  const { layer, name } = coat();
  const micron = () => coat().layer.dftMicron;
  const ref = useFollowing<SVGGElement, number>(micron, (face, film) => {
    move(face, -film * scale);
    face.setAttribute('aria-valuenow', String(Math.round(film)));
    face.setAttribute('aria-valuetext', told(film));
  });
  return (
    <g
      ref={ref}
      role="slider"
      tabIndex={0}
      aria-label={`Dry film of coat ${number}, ${name}`}
      aria-orientation="vertical"
      aria-valuemin={1}
      aria-valuemax={5000}
      style={{ cursor: 'ns-resize', touchAction: 'none' }}
      onPointerDown={(e) => hand.grab(e, layer.id, micron())}
      onPointerMove={hand.drag}
      onPointerUp={hand.drop}
      onPointerCancel={hand.drop}
      onKeyDown={(e) => hand.nudge(e, layer.id, micron())}
      onKeyUp={(e) => e.key !== 'Tab' && hand.done()}
    >
      <rect x={LEFT} y={-11} width={width} height="22" fill="transparent" />
      <rect x={LEFT + 10} y={-4} width="22" height="8" rx="2" fill="var(--color-base-100)" stroke="currentColor" />
      <path d={`M${LEFT + 15} 0h12`} stroke="currentColor" />
    </g>
  );
}

/** The substrate by kind, and the hatching that the layers above share. */
function Ground({ uid, substrate, y, width, height }: { uid: string; substrate: Substrate; y: number; width: number; height: number }) {
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
      <text x={LEFT + 4} y={y - 4} fontSize="14" className="narrow" fill="currentColor" stroke="var(--color-base-100)" strokeWidth="3.5" paintOrder="stroke">
        target {told}
      </text>
    </g>
  );
}
