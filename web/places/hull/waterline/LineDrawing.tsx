import { boatProfile } from '#core/hull/profile';
import { samples } from '#core/hull/shape';
import { formatQuantity, shownUnit } from '#core/units/format';
import { useSettings } from '../../../data/settings';
import type { BoatView } from '../../../data/store';
import { EVIDENCE_WORDS } from '../../../parts/prepWords';
import { linesOf } from '../../../parts/hullLines';
import { useWidth } from '../../../parts/useWidth';
import type { Waterline } from './useWaterline';

const PAD = 34;
/** Height of the drawing that is stretched upwards, px. */
const TALL = 250;
const MARKER = 5;

/** The line over the hull: at true scale, and under it the same heights much exaggerated. */
export function LineDrawing({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const [box, width] = useWidth<HTMLDivElement>(640);
  const { shape } = waterline;
  const perM = (width - 2 * PAD) / shape.lengthM;
  const x = (m: number) => PAD + m * perM;
  return (
    <div ref={box} className="min-w-0">
      <TrueScale view={view} waterline={waterline} x={x} perM={perM} width={width} />
      <Exaggerated waterline={waterline} x={x} width={width} />
    </div>
  );
}

type Along = (m: number) => number;

function pathOf(xs: readonly number[], heightM: (x: number) => number | null, at: (x: number, z: number) => string) {
  let pen = 'M';
  return xs
    .map((x) => {
      const z = heightM(x);
      if (z === null) {
        pen = 'M';
        return '';
      }
      const d = `${pen}${at(x, z)}`;
      pen = 'L';
      return d;
    })
    .join('');
}

function TrueScale({
  view,
  waterline,
  x,
  perM,
  width,
}: {
  view: BoatView;
  waterline: Waterline;
  x: Along;
  perM: number;
  width: number;
}) {
  const { shape, lines, line } = waterline;
  const profile = boatProfile(view.boat, { lines: linesOf(view.hull) });
  const top = profile.topM;
  const height = (top - profile.bottomM) * perM + 12;
  const y = (m: number) => 6 + (top - m) * perM;
  const at = (mx: number, mz: number) => `${x(mx).toFixed(1)} ${y(mz).toFixed(1)}`;
  const outlines = [profile.hull, ...(profile.regions.keel ?? []), ...(profile.regions.rudder ?? [])];
  const xs = samples(0, shape.lengthM, 80);
  const on = (of: (x: number) => number | null) => (mx: number) => {
    const z = of(mx);
    return z === null || z > shape.sheer(mx) || z < shape.bottom(mx) ? null : z;
  };
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      role="img"
      aria-label={`${view.boat.name} from the side with her line, to scale`}
    >
      {outlines.map((o, i) => (
        <path
          key={i}
          d={`M${o.map((p) => at(p.x, p.z)).join('L')}Z`}
          fill="var(--color-base-200)"
          stroke="currentColor"
          strokeWidth="1"
        />
      ))}
      <path d={`M${at(0, 0)}L${at(shape.lengthM, 0)}`} stroke="currentColor" strokeDasharray="1 5" opacity=".6" />
      {lines.map((l) => (
        <path
          key={l.line.lineId}
          d={pathOf(xs, on(l.heightM), at)}
          fill="none"
          stroke="currentColor"
          strokeWidth={l === line ? 2.5 : 1}
          strokeDasharray={l === line ? undefined : '5 3'}
        />
      ))}
      {line && line.line.bandM > 0 && (
        <path
          d={pathOf(
            waterline.table.map((r) => r.xM),
            (mx) => {
              const row = waterline.table.find((r) => r.xM === mx);
              return row?.heightM == null || row.bandHeightM === null ? null : row.heightM + row.bandHeightM;
            },
            at,
          )}
          fill="none"
          stroke="currentColor"
          strokeWidth="1"
        />
      )}
    </svg>
  );
}

/** The range of heights to show, with air around it, m. */
function rangeOf(waterline: Waterline): [number, number] {
  const { lines, shape, log, water } = waterline;
  const strays = new Set(lines.flatMap((l) => (l.faired ? l.faired.strays.map((i) => l.marks[i]) : [])));
  const xs = samples(shape.waterline[0], shape.waterline[1], 12);
  const all = [
    0,
    ...lines.flatMap((l) => l.marks.filter((m) => !strays.has(m)).map((m) => m.heightM)),
    ...lines.flatMap((l) => xs.flatMap((x) => l.heightM(x) ?? [])),
    ...log.evidence.flatMap((e) => [e.heightM - e.plusMinusM, e.heightM + e.plusMinusM]),
    ...(water.value && water.value.addedKg !== 0 ? xs.map((x) => water.value.waterRiseM({ xM: x, yM: 0 })) : []),
  ];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const air = Math.max(0.02, (high - low) * 0.15);
  return [low - air, high + air];
}

/** A step of the scale that leaves some six lines. */
function stepOf(span: number): number {
  const raw = span / 6;
  const power = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((k) => k * power).find((s) => s >= raw) ?? raw;
}

function Exaggerated({ waterline, x, width }: { waterline: Waterline; x: Along; width: number }) {
  const { units } = useSettings();
  const { shape, lines, line, log, water } = waterline;
  const [low, high] = rangeOf(waterline);
  const y = (m: number) => 10 + ((high - m) / (high - low)) * (TALL - 20);
  const clamp = (m: number) => Math.min(TALL - 6, Math.max(6, y(m)));
  const at = (mx: number, mz: number) => `${x(mx).toFixed(1)} ${clamp(mz).toFixed(1)}`;
  const unit = shownUnit('width', units);
  const step = stepOf((high - low) / unit.factor) * unit.factor;
  const rules = Array.from(
    { length: Math.floor(high / step) - Math.ceil(low / step) + 1 },
    (_, i) => (Math.ceil(low / step) + i) * step,
  );
  const xs = samples(0, shape.lengthM, 120);
  const times = Math.round((TALL - 20) / (high - low) / ((width - 2 * PAD) / shape.lengthM));
  return (
    <svg
      viewBox={`0 0 ${width} ${TALL + 16}`}
      className="mt-2 block w-full"
      role="img"
      aria-label={`Heights of her line, ${times} times as high as long`}
    >
      {rules.map((m) => (
        <g key={m}>
          <path
            d={`M${x(0)} ${y(m)}H${x(shape.lengthM)}`}
            stroke="currentColor"
            opacity={Math.abs(m) < 1e-9 ? 0.5 : 0.15}
          />
          <text x={PAD - 4} y={y(m) + 4} textAnchor="end" fontSize="12" className="narrow" fill="currentColor">
            {formatQuantity('width', m, units, 0).split(' ')[0]}
          </text>
        </g>
      ))}
      <text x={width - 4} y={TALL + 12} textAnchor="end" fontSize="13" className="narrow" fill="currentColor">
        {unit.symbol} over the drawn waterline, × {times} in height
      </text>
      {water.value && water.value.addedKg !== 0 && (
        <path
          d={pathOf(
            xs.filter((m) => m >= shape.waterline[0] && m <= shape.waterline[1]),
            (m) => water.value.waterRiseM({ xM: m, yM: 0 }),
            at,
          )}
          fill="none"
          stroke="currentColor"
          strokeWidth="1.5"
          strokeDasharray="2 4"
        />
      )}
      {lines.map((l) => (
        <path
          key={l.line.lineId}
          d={pathOf(xs, l.heightM, at)}
          fill="none"
          stroke="currentColor"
          strokeWidth={l === line ? 2.5 : 1}
          strokeDasharray={l === line ? undefined : '5 3'}
        />
      ))}
      {log.evidence.map((e) => (
        <g key={e.id}>
          <title>{EVIDENCE_WORDS[e.what]}</title>
          <path
            d={`M${x(e.xM)} ${clamp(e.heightM - e.plusMinusM)}V${clamp(e.heightM + e.plusMinusM)}`}
            stroke="currentColor"
            strokeWidth="1.5"
          />
          <path
            d={`M${x(e.xM)} ${clamp(e.heightM) - 5}l5 5l-5 5l-5 -5z`}
            fill="var(--color-base-100)"
            stroke="currentColor"
            strokeWidth="1.5"
          />
        </g>
      ))}
      {line && <Marks line={line} x={x} y={clamp} />}
    </svg>
  );
}

/** Marks of the line that is looked at: those that stray are crossed out and say by how much. */
function Marks({ line, x, y }: { line: NonNullable<Waterline['line']>; x: Along; y: (m: number) => number }) {
  const { units } = useSettings();
  const strays = new Set(line.faired?.strays ?? []);
  return (
    <g>
      {line.marks.map((m, i) => {
        const [cx, cy] = [x(m.xM), y(m.heightM)];
        if (!strays.has(i))
          return (
            <circle
              key={m.ids[0]}
              cx={cx}
              cy={cy}
              r={MARKER - 1}
              fill="var(--color-base-100)"
              stroke="currentColor"
              strokeWidth="1.5"
            />
          );
        const off = m.heightM - (line.faired?.heightsM[i] ?? m.heightM);
        return (
          <g key={m.ids[0]} className="text-error">
            <path d={`M${cx - MARKER} ${cy - MARKER}l10 10m0 -10l-10 10`} stroke="currentColor" strokeWidth="3" />
            <text x={cx + 9} y={Math.min(cy + 12, TALL - 4)} fontSize="13" className="narrow" fill="currentColor">
              {off > 0 ? '+' : ''}
              {formatQuantity('width', off, units)}
            </text>
          </g>
        );
      })}
    </g>
  );
}
