import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { PlannedTask } from '#core/plan/problem';
import { useWidth } from '../../parts/useWidth';
import type { PlanAnswer, PlanWeather } from '../../workers/plan';
import { AIR_HEIGHT, AirStrip, Nights } from './AirStrip';
import type { ChartRow } from './chartRows';
import { whenWords, type PlanNames } from './planWords';
import { TimeTicks } from './TimeTicks';
import type { TimeWindow } from './timeScale';
import { FILM_HEIGHT, ZoneFilm } from './ZoneFilm';

const QUARTER_MS = 15 * 60_000;
const NAME_WIDTH = 128;
const ROW = FILM_HEIGHT + 18;
const HEAD = 26;
const TOP = HEAD + AIR_HEIGHT + 6;
const DAY_STEPS = 96;

interface Props {
  readonly rows: readonly ChartRow[];
  readonly answer: PlanAnswer;
  readonly weather: PlanWeather | undefined;
  readonly seen: TimeWindow;
  readonly names: PlanNames;
  readonly timeZone: string;
  readonly launchAt: number | null;
  readonly selected: string | null;
  readonly locked: ReadonlySet<string>;
  /** Starts of another plan that is looked at beside this one. */
  readonly beside: ReadonlyMap<string, number> | null;
  readonly onSelect: (task: string | null) => void;
  /** A task is being moved to a start, or let go there. */
  readonly onMove: (task: string, start: number, letGo: boolean) => void;
  readonly onPan: (ms: number) => void;
  readonly openFor: (task: string) => Promise<{ from: number; to: number }[]>;
}

/** The nearest allowed start to a wanted one; the wanted one where nothing is allowed. */
function snapped(spans: readonly { from: number; to: number }[], wanted: number): number {
  let best = wanted;
  let off = Infinity;
  for (const { from, to } of spans) {
    const near = Math.min(to, Math.max(from, wanted));
    if (Math.abs(near - wanted) < off) {
      off = Math.abs(near - wanted);
      best = near;
    }
  }
  return best;
}

/** Dragging a step, or the whole chart; a step snaps to where it may start. */
function useDrag({
  perMs,
  onSelect,
  onMove,
  onPan,
  openFor,
}: Pick<Props, 'onSelect' | 'onMove' | 'onPan' | 'openFor'> & { perMs: number }) {
  const [spans, setSpans] = useState<readonly { from: number; to: number }[]>([]);
  const drag = useRef<Held | null>(null);
  const pan = useRef<number | null>(null);
  const wanted = (held: Held, event: PointerEvent<SVGElement>) => {
    const by = (event.clientX - held.x) / perMs;
    return snapped(held.spans, Math.round((held.start + by) / QUARTER_MS) * QUARTER_MS);
  };
  return {
    spans,
    take: (task: PlannedTask) => async (event: PointerEvent<SVGElement>) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      onSelect(task.id);
      const held: Held = { task: task.id, x: event.clientX, start: task.start, spans: [], moved: false };
      drag.current = held;
      held.spans = await openFor(task.id);
      if (drag.current === held) setSpans(held.spans);
    },
    grab: (event: PointerEvent<SVGElement>) => {
      pan.current = event.clientX;
    },
    move: (event: PointerEvent<SVGElement>) => {
      const held = drag.current;
      if (held) {
        if (!held.moved && Math.abs(event.clientX - held.x) < 4) return;
        held.moved = true;
        onMove(held.task, wanted(held, event), false);
      } else if (pan.current !== null) {
        onPan((pan.current - event.clientX) / perMs);
        pan.current = event.clientX;
      }
    },
    drop: (event: PointerEvent<SVGElement>) => {
      const held = drag.current;
      drag.current = null;
      pan.current = null;
      setSpans([]);
      if (held?.moved) onMove(held.task, wanted(held, event), true);
    },
    press: (task: PlannedTask) => async (event: KeyboardEvent<SVGElement>) => {
      const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
      if (by === 0) return;
      event.preventDefault();
      event.stopPropagation();
      const at = task.start + by * (event.shiftKey ? DAY_STEPS : 1) * QUARTER_MS;
      const beyond = (await openFor(task.id)).filter((s) => (by > 0 ? s.to >= at : s.from <= at));
      onMove(task.id, beyond.length > 0 ? snapped(beyond, at) : at, true);
    },
  };
}

interface Held {
  readonly task: string;
  readonly x: number;
  readonly start: number;
  spans: readonly { from: number; to: number }[];
  moved: boolean;
}

/** Window chart: the air above, the film of each zone growing in time below. Coats are steps that can be dragged. */
export function WindowChart(props: Props) {
  const { rows, weather, seen } = props;
  const [box, boxWidth] = useWidth<HTMLDivElement>(1100);
  const width = Math.max(200, boxWidth - NAME_WIDTH);
  const perMs = width / (seen.to - seen.from);
  const drag = useDrag({ ...props, perMs });
  const x = (at: number) => (at - seen.from) * perMs;
  const height = TOP + rows.length * ROW + 8;
  return (
    <div ref={box} className="min-w-0 select-none">
      <svg
        width={boxWidth}
        height={height}
        className="block touch-pan-y"
        role="group"
        aria-label="Window chart: the air above, the film of each zone growing in time below"
        onPointerDown={drag.grab}
        onPointerMove={drag.move}
        onPointerUp={drag.drop}
        onPointerCancel={drag.drop}
      >
        <g transform={`translate(${NAME_WIDTH} 0)`}>
          <svg width={width} height={height} x={0} y={0} overflow="hidden">
            {weather && (
              <g transform={`translate(0 ${HEAD})`}>
                <AirStrip weather={weather} seen={seen} width={width} zoneId={surfaceOf(props)} />
              </g>
            )}
            <TimeTicks seen={seen} timeZone={props.timeZone} width={width} top={HEAD} height={height} />
            {drag.spans.map((s) => (
              <rect
                key={s.from}
                x={x(s.from)}
                y={TOP}
                width={Math.max(2, x(s.to) - x(s.from))}
                height={height - TOP}
                fill="var(--color-success)"
                opacity=".16"
              />
            ))}
            <Rows {...props} x={x} width={width} drag={drag} />
            <Lines {...props} x={x} height={height} />
          </svg>
        </g>
        {rows.map((row, i) => (
          <text key={row.zoneId} x={0} y={TOP + i * ROW + 44} fontSize="17" fill="currentColor" className="narrow">
            {row.name.length > 19 ? `${row.name.slice(0, 18)}…` : row.name}
          </text>
        ))}
        <AirKey zoneName={props.names.zone(surfaceOf(props) ?? '')} />
      </svg>
    </div>
  );
}

/** Whose surface is drawn in the air: that of the chosen step's zone, else the first one's. */
const surfaceOf = ({ rows, selected }: Props): string | undefined =>
  (rows.find((r) => r.tasks.some((t) => t.id === selected)) ?? rows[0])?.zoneId;

/** What the lines of the air are. */
function AirKey({ zoneName }: { zoneName: string }) {
  const line = (y: number, words: string, stroke: string, dash?: string) => (
    <g transform={`translate(0 ${HEAD + y})`}>
      <path d="M0 -4h16" stroke={stroke} strokeWidth="1.5" strokeDasharray={dash} />
      <text x={21} fontSize="13.5" fill="currentColor" className="narrow">
        {words}
      </text>
    </g>
  );
  return (
    <>
      {line(22, 'the air', 'currentColor')}
      {line(40, 'its dew point', 'currentColor', '4 3')}
      {line(58, 'surface of', 'var(--color-error)')}
      <text x={21} y={HEAD + 73} fontSize="13.5" fill="currentColor" className="narrow">
        {zoneName.length > 16 ? `${zoneName.slice(0, 15)}…` : zoneName}
      </text>
    </>
  );
}

function Rows({
  rows,
  answer,
  weather,
  seen,
  names,
  timeZone,
  selected,
  locked,
  beside,
  onSelect,
  x,
  width,
  drag,
}: Props & { x: (at: number) => number; width: number; drag: ReturnType<typeof useDrag> }) {
  return (
    <>
      {rows.map((row, i) => (
        <g key={row.zoneId} transform={`translate(0 ${TOP + i * ROW})`}>
          {weather && <Nights weather={weather} seen={seen} width={width} height={ROW} />}
          <ZoneFilm {...row} seen={seen} width={width} selected={selected} locked={locked} beside={beside} />
          {row.tasks.map((task) => (
            <Step
              key={task.id}
              task={task}
              x={x}
              width={width}
              label={`${names.zone(row.zoneId)}, ${names.of(task.id)}: ${whenWords(task, answer.now, timeZone)}. ${names.say(task.why)}`}
              name={names.of(task.id)}
              selected={selected === task.id}
              room={roomAfter(row, task, x)}
              onTake={drag.take(task)}
              onKey={drag.press(task)}
              onSelect={() => onSelect(task.id)}
            />
          ))}
        </g>
      ))}
    </>
  );
}

/** Now, the launch, and what is fixed. */
function Lines({ answer, launchAt, x, height }: Props & { x: (at: number) => number; height: number }) {
  return (
    <>
      <path d={`M${x(answer.now)} ${HEAD}V${height}`} stroke="var(--color-error)" strokeWidth="2" />
      <text x={x(answer.now) + 4} y={HEAD + 12} fontSize="13" fill="var(--color-error)" className="narrow">
        now
      </text>
      {launchAt !== null && (
        <>
          <path d={`M${x(launchAt)} ${HEAD}V${height}`} stroke="currentColor" strokeWidth="2" strokeDasharray="7 4" />
          <text x={x(launchAt) - 5} y={HEAD + 12} textAnchor="end" fontSize="14" fill="currentColor" className="narrow">
            launch
          </text>
        </>
      )}
      {answer.appointments.map((a) => (
        <rect
          key={a.id}
          x={x(a.from)}
          y={TOP}
          width={Math.max(3, x(a.to) - x(a.from))}
          height={height - TOP}
          fill="none"
          stroke="currentColor"
          strokeDasharray="2 3"
        />
      ))}
    </>
  );
}

/** Room for a name to the right of a step, px. */
function roomAfter(row: ChartRow, task: PlannedTask, x: (at: number) => number): number {
  const next = row.tasks.filter((t) => t.kind === 'coat' && t.start > task.start)[0];
  return next ? x(next.start) - x(task.start) : 400;
}

function Step({
  task,
  x,
  width,
  label,
  name,
  selected,
  room,
  onTake,
  onKey,
  onSelect,
}: {
  task: PlannedTask;
  x: (at: number) => number;
  width: number;
  label: string;
  name: string;
  selected: boolean;
  room: number;
  onTake: (event: PointerEvent<SVGElement>) => Promise<void>;
  onKey: (event: KeyboardEvent<SVGElement>) => Promise<void>;
  onSelect: () => void;
}) {
  const [from, to] = [x(task.start), x(task.end)];
  if (to < 0 || from > width) return null;
  const wide = Math.max(9, to - from);
  // A finger or a hurried mouse needs more than a quarter of an hour is wide.
  const hit = Math.max(24, wide + 4);
  const coat = task.kind === 'coat';
  return (
    <g
      role="button"
      tabIndex={0}
      data-task={task.id}
      aria-label={label}
      aria-pressed={selected}
      className="plan-step cursor-grab"
      onPointerDown={(e) => void onTake(e)}
      onKeyDown={(e) => {
        if (e.key === 'Enter' || e.key === ' ') {
          e.preventDefault();
          onSelect();
        } else void onKey(e);
      }}
      onFocus={onSelect}
    >
      <rect
        x={from + wide / 2 - hit / 2}
        y={coat ? 0 : FILM_HEIGHT - 14}
        width={hit}
        height={coat ? FILM_HEIGHT - 12 : 18}
        fill="transparent"
      />
      {coat && (
        <>
          {selected && (
            <rect
              x={from - 2}
              y={1}
              width={wide + 4}
              height={FILM_HEIGHT - 8}
              fill="none"
              stroke="currentColor"
              strokeWidth="2"
            />
          )}
          {room > name.length * 6.5 + 6 && (
            <text x={from + 3} y={ROW - 6} fontSize="13.5" fill="currentColor" className="narrow" pointerEvents="none">
              {name}
            </text>
          )}
        </>
      )}
    </g>
  );
}
