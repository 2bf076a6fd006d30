import { ticks } from 'd3-array';
import type { Substrate } from '#core/model/surface';
import { LEFT, TOP } from './layout';

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

/** The substrate by kind, and the hatching that the layers above share. */
export function Ground({
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
export function Ruler({ groundY, scale, unitMicron }: { groundY: number; scale: number; unitMicron: number }) {
  const most = (groundY - TOP) / scale / unitMicron;
  return ticks(0, most, 6).map((value) => {
    const y = groundY - value * unitMicron * scale;
    return (
      <g key={value} aria-hidden="true">
        <path d={`M${LEFT - 5} ${y}h5`} stroke="currentColor" />
        <text x={LEFT - 8} y={y + 5} textAnchor="end" fontSize="14" fill="currentColor" className="narrow">
          {value}
        </text>
      </g>
    );
  });
}

export function Target({ y, right, words }: { y: number; right: number; words: string }) {
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
        target {words}
      </text>
    </g>
  );
}
