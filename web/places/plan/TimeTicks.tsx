import { ticks, type TimeWindow } from './timeScale';

/** Days and hours over a chart: a line down from each, its words above. */
export function TimeTicks({
  seen,
  timeZone,
  width,
  top,
  height,
}: {
  seen: TimeWindow;
  timeZone: string;
  width: number;
  /** Where the chart begins below the words, px. */
  top: number;
  height: number;
}) {
  const x = (at: number) => ((at - seen.from) / (seen.to - seen.from)) * width;
  return ticks(seen, timeZone, width).map((t) => (
    <g key={t.at}>
      <path d={`M${x(t.at)} ${t.day ? top - 6 : top}V${height}`} stroke="currentColor" opacity={t.day ? 0.25 : 0.1} />
      <text x={x(t.at) + 3} y={16} fontSize={t.day ? 15 : 13} fill="currentColor" className="narrow">
        {t.text}
      </text>
    </g>
  ));
}
