import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useMemo, useRef } from 'react';
import { hoursAtTemperature } from '#core/cure/arrhenius';
import type { TimeTable } from '#core/model/timeTable';
import { wrongWay } from '#core/sheet/problems';
import { formatQuantity, shownUnit, type UnitChoice } from '#core/units/format';
import { fromCore } from '#core/units/quantities';
import { colourOf } from '../../parts/colourOf';
import { useSettings } from '../../data/settings';
import { attempt } from '../../parts/attempt';
import { spanWords } from '../../parts/words';

echarts.use([LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

export interface TimeRow {
  readonly name: string;
  readonly table: TimeTable;
  /** A longest time is fitted to the safe side the other way. */
  readonly kind: 'minimum' | 'maximum';
}

const HOUR_MS = 3_600_000;
const DASHES = ['solid', [6, 4], [2, 3], [10, 3, 2, 3]] as const;
const MARKS = ['circle', 'rect', 'triangle', 'diamond', 'roundRect', 'pin'] as const;

/** Times over temperature: the curve that clocks run on through the points of the table, a slip marked by a cross. */
export function TimeCurve({
  rows,
  minCureC,
  atC = null,
}: {
  rows: readonly TimeRow[];
  minCureC: number | null;
  /** A temperature that is asked about: the curve reaches to it, and a line stands there. */
  atC?: number | null;
}) {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<echarts.ECharts | null>(null);
  const { units, theme } = useSettings();
  useEffect(() => {
    if (!box.current) return;
    const made = echarts.init(box.current, null, { renderer: 'svg' });
    chart.current = made;
    const fit = new ResizeObserver(() => made.resize());
    fit.observe(box.current);
    return () => {
      fit.disconnect();
      made.dispose();
      chart.current = null;
    };
  }, [theme]);
  const lines = useMemo(
    () => rows.flatMap((row) => attempt(() => [{ row, curve: curveOf(row, rows, minCureC, atC) }]).value ?? []),
    [rows, minCureC, atC],
  );
  useEffect(() => {
    chart.current?.setOption(chartOf(lines, units, atC) as never, true);
  }, [lines, units, theme, atC]);
  return (
    <figure className={lines.length === 0 ? 'hidden' : ''}>
      <div
        ref={box}
        className="h-64 w-full overflow-hidden"
        role="img"
        aria-label={`Times over temperature: ${lines.map((l) => l.row.name).join(', ')}`}
      />
      <figcaption>
        <ul className="narrow flex flex-wrap gap-x-4 text-base">
          {lines.map(({ row }, i) => (
            <li key={row.name} className="flex items-center gap-1.5">
              <Mark at={i} /> {row.name}
            </li>
          ))}
        </ul>
        <p className="text-sm quiet">
          Points: the table. Lines: what clocks run on between and beside them. A cross: warmer takes longer, most
          likely a slip of typing.
        </p>
      </figcaption>
    </figure>
  );
}

type Line = { readonly row: TimeRow; readonly curve: { tempC: number; hours: number }[] };

/** The chart's options, in the theme's ink and the user's units. */
function chartOf(lines: readonly Line[], units: UnitChoice, atC: number | null) {
  const ink = colourOf('--color-base-content');
  const unit = shownUnit('temperature', units);
  return {
    animation: false,
    textStyle: { fontFamily: 'Barlow Condensed', fontSize: 14, color: ink },
    grid: { left: 52, right: 14, top: 14, bottom: 34 },
    // Text only: the page's policy allows no styles inside markup.
    tooltip: {
      trigger: 'item',
      renderMode: 'richText',
      formatter: (p: { seriesName: string; data: [number, number, number] }) =>
        `${p.seriesName}\n${formatQuantity('temperature', p.data[2], units, 0)}: ${spanWords(p.data[1] * HOUR_MS)}`,
    },
    xAxis: {
      type: 'value',
      scale: true,
      name: unit.symbol,
      nameLocation: 'middle',
      nameGap: 22,
      axisLabel: { color: ink },
      axisLine: { show: true, onZero: false, lineStyle: { color: ink } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'log',
      axisLabel: { color: ink, formatter: (h: number) => (h < 1 ? `${Math.round(h * 60)} min` : `${h} h`) },
      splitLine: { lineStyle: { color: ink, opacity: 0.15 } },
    },
    series: [...lines.flatMap((line, i) => seriesOf(line, i, units)), ...(atC === null ? [] : [askedLine(atC, units)])],
  };
}

/** The temperature that is asked about. */
function askedLine(atC: number, units: UnitChoice) {
  const unit = shownUnit('temperature', units);
  return {
    type: 'line',
    silent: true,
    data: [],
    markLine: {
      silent: true,
      symbol: 'none',
      label: { show: false },
      lineStyle: { color: colourOf('--color-info'), width: 2, type: 'solid' },
      data: [{ xAxis: Number(fromCore('temperature', unit.id, atC).toFixed(2)) }],
    },
  };
}

/** One table: its curve, its points, and a cross where it slips. */
function seriesOf({ row, curve }: Line, i: number, units: UnitChoice) {
  const ink = colourOf('--color-base-content');
  const unit = shownUnit('temperature', units);
  const shown = (c: number) => Number(fromCore('temperature', unit.id, c).toFixed(2));
  const slips = new Set(wrongWay(row.table).flatMap((w) => [w.colder.tempC, w.warmer.tempC]));
  const points = (bad: boolean) =>
    row.table.filter((c) => slips.has(c.tempC) === bad).map((c) => [shown(c.tempC), c.hours, c.tempC]);
  return [
    {
      name: row.name,
      type: 'line',
      showSymbol: false,
      silent: true,
      data: curve.map((c) => [shown(c.tempC), c.hours]),
      lineStyle: { color: ink, width: 1.4, type: DASHES[i % DASHES.length] },
    },
    {
      name: row.name,
      type: 'scatter',
      symbol: MARKS[i % MARKS.length],
      symbolSize: 9,
      data: points(false),
      itemStyle: { color: 'transparent', borderColor: ink, borderWidth: 2 },
    },
    {
      name: row.name,
      type: 'scatter',
      symbol: 'path://M0 3L3 0L8 5L13 0L16 3L11 8L16 13L13 16L8 11L3 16L0 13L5 8Z',
      symbolSize: 14,
      data: points(true),
      itemStyle: { color: colourOf('--color-error') },
    },
  ];
}

/** The fitted times from the coldest column of all rows to the hottest, every degree. */
function curveOf(
  row: TimeRow,
  rows: readonly TimeRow[],
  minCureC: number | null,
  atC: number | null,
): { tempC: number; hours: number }[] {
  const temps = [...rows.flatMap((r) => r.table.map((c) => c.tempC)), ...(atC === null ? [] : [atC])].filter(
    Number.isFinite,
  );
  const [low, high] = [Math.min(...temps) - 3, Math.max(...temps) + 3];
  const steps = Math.max(1, Math.min(120, Math.round(high - low)));
  return Array.from({ length: steps + 1 }, (_, i) => low + ((high - low) * i) / steps).flatMap((tempC) => {
    const hours = hoursAtTemperature({
      table: row.table,
      tempC,
      kind: row.kind,
      ...(minCureC === null || !Number.isFinite(minCureC) ? {} : { minCureC }),
    });
    return Number.isFinite(hours) && hours > 0 ? [{ tempC, hours }] : [];
  });
}

const SHAPES = [
  <circle key="c" cx="6" cy="6" r="4" />,
  <rect key="r" x="2" y="2" width="8" height="8" />,
  <path key="t" d="M6 1.5L11 10.5H1Z" />,
  <path key="d" d="M6 1L11 6L6 11L1 6Z" />,
  <rect key="q" x="2" y="2" width="8" height="8" rx="3" />,
  <path key="p" d="M6 11L2 5a4 4 0 118 0Z" />,
];

function Mark({ at }: { at: number }) {
  return (
    <svg
      width="12"
      height="12"
      viewBox="0 0 12 12"
      aria-hidden="true"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.8"
    >
      {SHAPES[at % SHAPES.length]}
    </svg>
  );
}
