import { useId } from 'react';
import type { Substrate } from '#core/model/surface';
import { formatQuantity } from '#core/units/format';
import { MIL_MICRON } from '#core/units/quantities';
import { useSettings } from '../../../data/settings';
import { Face, Leader, MeasuredBand, PlannedBand, WORDS_PX } from './Bands';
import { filmOf, type SectionCoat } from './coat';
import { Ground, Ruler, Target } from './Ground';
import { bandsOf, layoutOf, LEFT, rowY, type Band, type Pitch } from './layout';
import { useFilmGrip } from './useFilmGrip';

const LEADER = 24;

export interface StackProps {
  coats: readonly SectionCoat[];
  substrate: Substrate;
  targetMicron: number | null;
  selected: string | null;
  width: number;
  pitch: Pitch;
  onPick: (layerId: string) => void;
  /** While it moves; then once it is let go. Left out where nothing may be changed. */
  onFilm?: ((layerId: string, micron: number) => void) | undefined;
  onFilmDone?: (() => void) | undefined;
}

/**
 * The coats cut through, to scale in µm over their substrate: planned at the left, measured at the right as coats get
 * logged. The upper face of a planned coat is dragged, or moved by arrow keys, to make it thicker or thinner.
 */
export function Stack(props: StackProps) {
  const { coats, substrate, targetMicron, selected, width, pitch, onPick, onFilm } = props;
  const { uid, hatching, film, us, layout, grip, planned, laid, ...across } = useStackLayout(props);
  const { groundY, height, scale, anyOn, right, split, roomForWords } = { ...layout, ...across };
  const each = (draw: (coat: SectionCoat, i: number, strong: boolean) => React.ReactNode) =>
    coats.map((coat, i) => draw(coat, i, coat.layer.id === selected));
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      className="block shrink-0 touch-pan-y select-none"
      role="group"
      aria-label="Section to scale"
      aria-describedby={`${uid}-planned`}
    >
      <Ground uid={uid} substrate={substrate} y={groundY} width={right - LEFT} height={height - groundY - 1} />
      {roomForWords && <Headings right={anyOn ? right : null} />}
      <Ruler groundY={groundY} scale={scale} unitMicron={us ? MIL_MICRON : 1} />
      {each(({ layer, on }, i, strong) => (
        <Leader
          key={layer.id}
          at={planned[i] as Band}
          from={on ? right : split}
          to={width}
          row={rowY(coats.length - 1 - i, pitch)}
          strong={strong}
        />
      ))}
      {each(({ layer, on, keptMicron }, i, strong) => (
        <PlannedBand
          key={layer.id}
          at={planned[i] as Band}
          lost={(layer.dftMicron - keptMicron) * scale}
          width={split - LEFT}
          layer={layer}
          on={on}
          strong={strong}
          hatching={hatching}
          onPick={() => onPick(layer.id)}
        />
      ))}
      {each(
        (coat, i, strong) =>
          coat.on && (
            <MeasuredBand
              key={coat.layer.id}
              coat={coat}
              at={laid[i] as Band}
              left={split}
              right={right}
              strong={strong}
              hatching={hatching}
              film={film}
              onPick={() => onPick(coat.layer.id)}
            />
          ),
      )}
      {targetMicron !== null && <Target y={groundY - targetMicron * scale} right={right} words={film(targetMicron)} />}
      <Heading id={`${uid}-planned`} x={roomForWords ? LEFT + 64 : LEFT} weight="600">
        {filmOf(coats) > 0 ? film(filmOf(coats)) : ''}
      </Heading>
      {onFilm &&
        each(
          ({ layer, name, on }, i) =>
            !on && (
              <Face
                key={layer.id}
                layer={layer}
                label={`Dry film of coat ${i + 1}, ${name}`}
                y={(planned[i] as Band).y}
                width={split - LEFT}
                film={film}
                grip={grip}
              />
            ),
        )}
    </svg>
  );
}

/** Where the coats lie, planned and measured, while one of them may be held. */
function useStackLayout({ coats, targetMicron, width, pitch, onFilm, onFilmDone }: StackProps) {
  const uid = useId();
  const { units } = useSettings();
  const film = (micron: number) => formatQuantity('film', micron, units);
  const us = units.except?.film === 'us' || (units.except?.film === undefined && units.system === 'us');
  const anyOn = coats.some((c) => c.on);
  const measured = coats.map((c) => (c.on ? (c.measuredMicron ?? c.layer.dftMicron) : 0));
  const fits =
    Math.max(
      filmOf(coats),
      measured.reduce((a, b) => a + b, 0),
      targetMicron ?? 0,
    ) * 1.04;
  const free = layoutOf({ coats: coats.length, micron: fits, pitch });
  const { layout, grip } = useFilmGrip({ layout: free, us, onFilm, onFilmDone });
  const right = width - LEADER;
  const split = anyOn ? LEFT + (right - LEFT) * 0.6 : right;
  const planned = bandsOf(
    coats.map((c) => c.layer.dftMicron),
    layout,
  );
  const laid = bandsOf(measured, layout);
  const roomForWords = right - LEFT > 3 * WORDS_PX;
  const hatching = `url(#${uid}-unread)`;
  return { uid, hatching, film, us, anyOn, layout, grip, right, split, planned, laid, roomForWords };
}

/** What the columns are; the measured one only where something is on. */
function Headings({ right }: { right: number | null }) {
  return (
    <>
      <Heading x={LEFT}>planned</Heading>
      {right !== null && (
        <Heading x={right} anchor="end">
          measured
        </Heading>
      )}
    </>
  );
}

/** Words over a column. */
function Heading(props: { id?: string; x: number; anchor?: 'end'; weight?: string; children: string }) {
  return (
    <text
      id={props.id}
      x={props.x}
      y={14}
      fontSize="15"
      textAnchor={props.anchor}
      fontWeight={props.weight}
      className="narrow"
      fill="currentColor"
    >
      {props.children}
    </text>
  );
}
