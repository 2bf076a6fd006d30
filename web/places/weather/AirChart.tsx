import { LineChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { DateTime } from 'luxon';
import { useEffect, useRef } from 'react';
import { drySpells } from '#core/air/dryHours';
import { dewPointC } from '#core/air/dewPoint';
import type { SourcedHour } from '#core/air/weather';
import { formatQuantity, shownUnit, type UnitChoice } from '#core/units/format';
import { fromCore } from '#core/units/quantities';
import { useSettings } from '../../data/settings';
import { colourOf } from '../../parts/colourOf';

echarts.use([LineChart, GridComponent, TooltipComponent, MarkLineComponent, MarkAreaComponent, SVGRenderer]);

const DAY_MS = 86_400_000;

/** Air and dew point from yesterday to the forecast's end; rain as bands. */
export function AirChart({ hours, at, zone }: { hours: readonly SourcedHour[]; at: number; zone: string }) {
  const box = useRef<HTMLDivElement>(null);
  const { units, theme } = useSettings();
  useEffect(() => {
    if (!box.current) return;
    const chart = echarts.init(box.current, null, { renderer: 'svg' });
    chart.setOption(chartOf({ hours, at, zone, units, narrow: box.current.clientWidth < 600 }) as never);
    const fit = new ResizeObserver(() => chart.resize());
    fit.observe(box.current);
    return () => {
      fit.disconnect();
      chart.dispose();
    };
  }, [hours, at, zone, units, theme]);
  return (
    <figure>
      <div
        ref={box}
        className="h-72 w-full overflow-hidden"
        role="img"
        aria-label="Air temperature and dew point, from yesterday to the end of the forecast"
      />
      <figcaption className="text-sm quiet">
        Line: air. Dashes: dew point. Filled: dry enough outdoors by the usual limits. Blue bands: rain. The wider the
        gap, the drier.
      </figcaption>
    </figure>
  );
}

/** The chart's options, in the theme's ink and the user's units. */
function chartOf(asked: {
  hours: readonly SourcedHour[];
  at: number;
  zone: string;
  units: UnitChoice;
  narrow: boolean;
}) {
  const { hours, at, zone, units, narrow } = asked;
  const ink = colourOf('--color-base-content');
  const unit = shownUnit('temperature', units);
  const shown = hours.filter((h) => h.at > at - DAY_MS && h.at < at + 8 * DAY_MS);
  const value = (c: number) => Number(fromCore('temperature', unit.id, c).toFixed(1));
  const rain = shown.filter((h) => (h.rainMm ?? 0) > 0).map((h) => [{ xAxis: h.at }, { xAxis: h.at + 3_600_000 }]);
  return {
    animation: false,
    textStyle: { fontFamily: 'Barlow Condensed', fontSize: 15, color: ink },
    grid: { left: 44, right: 16, top: 26, bottom: 28 },
    // Text only: the page's policy allows no styles inside markup.
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      formatter: (points: { dataIndex: number }[]) => hourWords(shown[points[0]?.dataIndex ?? 0], zone, units),
    },
    xAxis: {
      type: 'time',
      min: shown[0]?.at,
      max: shown[shown.length - 1]?.at,
      minInterval: DAY_MS,
      axisLabel: {
        formatter: (t: number) => DateTime.fromMillis(t, { zone }).toFormat(narrow ? 'ccccc' : 'ccc d'),
        color: ink,
      },
      axisLine: { lineStyle: { color: ink } },
    },
    yAxis: {
      type: 'value',
      scale: true,
      name: unit.symbol,
      nameTextStyle: { color: ink },
      axisLabel: { color: ink },
      splitLine: { lineStyle: { color: ink, opacity: 0.15 } },
    },
    series: [
      {
        name: 'air',
        type: 'line',
        showSymbol: false,
        data: shown.map((h) => [h.at, value(h.airC)]),
        lineStyle: { color: ink, width: 2 },
        itemStyle: { color: ink },
        markLine: {
          symbol: 'none',
          silent: true,
          label: { formatter: 'now', color: ink },
          lineStyle: { color: ink, type: 'solid' },
          data: [{ xAxis: at }],
        },
        markArea: { silent: true, itemStyle: { color: '#4d7ea8', opacity: 0.3 }, data: rain },
      },
      ...dryGap(shown, value),
      {
        name: 'dew point',
        type: 'line',
        showSymbol: false,
        data: shown.map((h) => [h.at, value(dewPointC(h))]),
        lineStyle: { color: ink, width: 1.5, type: 'dashed' },
        itemStyle: { color: ink },
      },
    ],
  };
}

/** As on Today the gap between air and dew point is filled where paint may go on outdoors: it stands on a line unseen. */
function dryGap(shown: readonly SourcedHour[], value: (c: number) => number) {
  const spells = drySpells({ hours: shown, from: shown[0]?.at ?? 0, until: shown[shown.length - 1]?.at ?? 0 });
  const isDry = (t: number) => spells.some((s) => s.from <= t && t <= s.until);
  const unseen = {
    type: 'line',
    stack: 'gap',
    silent: true,
    showSymbol: false,
    lineStyle: { opacity: 0 },
    tooltip: { show: false },
  };
  return [
    { ...unseen, data: shown.map((h) => [h.at, value(dewPointC(h))]) },
    {
      ...unseen,
      data: shown.map((h) => [h.at, isDry(h.at) ? value(h.airC) - value(dewPointC(h)) : null]),
      areaStyle: { color: colourOf('--color-success'), opacity: 0.55 },
    },
  ];
}

/** What one hour of the chart says. */
function hourWords(h: SourcedHour | undefined, zone: string, units: UnitChoice): string {
  if (!h) return '';
  const dew = dewPointC(h);
  return [
    DateTime.fromMillis(h.at, { zone }).toFormat('ccc HH:mm'),
    `air ${formatQuantity('temperature', h.airC, units)}, dew point ${formatQuantity('temperature', dew, units)}`,
    `gap ${formatQuantity('temperatureDifference', h.airC - dew, units)}, humidity ${Math.round(h.rh * 100)} %`,
    (h.rainMm ?? 0) > 0 ? 'rain' : '',
    h.source === 'simulated' ? 'simulated' : 'typed',
  ]
    .filter(Boolean)
    .join('\n');
}
