import { boatProfile, type Outline } from '#core/hull/profile';
import { samples } from '#core/hull/shape';
import type { BoatView } from '../../../data/store';
import { linesOf } from '../../../parts/hullLines';
import type { Waterline } from './useWaterline';

/** The drawing goes out at a tenth of her size, in millimetres. */
const MM_PER_M = 100;
const PAD_MM = 15;

/** Her profile with the line, its stations and its boot-top, 1 : 10, as a drawing of its own. */
export function lineSvg(view: BoatView, { shape, line, table, lines }: Waterline): string {
  const profile = boatProfile(view.boat, { lines: linesOf(view.hull) });
  const x = (m: number) => PAD_MM + m * MM_PER_M;
  const y = (m: number) => PAD_MM + (profile.topM - m) * MM_PER_M;
  const at = (mx: number, mz: number) => `${x(mx).toFixed(1)} ${y(mz).toFixed(1)}`;
  const path = (points: readonly string[], style: string) => `<path d="M${points.join('L')}" fill="none" ${style}/>`;
  const outline = (o: Outline) =>
    `<path d="M${o.map((p) => at(p.x, p.z)).join('L')}Z" fill="none" stroke="#000" stroke-width="0.5"/>`;
  const xs = samples(0, shape.lengthM, 120);
  const drawn = lines.map((l) => {
    const points = xs.flatMap((m) => {
      const z = l.heightM(m);
      return z === null || z > shape.sheer(m) || z < shape.bottom(m) ? [] : [at(m, z)];
    });
    if (points.length < 2) return '';
    return path(
      points,
      `stroke="#000" stroke-width="${l === line ? 1 : 0.4}"${l === line ? '' : ' stroke-dasharray="4 2"'}`,
    );
  });
  const band = table.flatMap((r) =>
    r.heightM === null || r.bandHeightM === null ? [] : [at(r.xM, r.heightM + r.bandHeightM)],
  );
  const stations = table.flatMap((r) =>
    r.heightM === null || r.belowRailM === null
      ? []
      : [
          `<path d="M${at(r.xM, r.heightM)}V${y(shape.sheer(r.xM)).toFixed(1)}" stroke="#000" stroke-width="0.2"/>`,
          `<text x="${x(r.xM).toFixed(1)}" y="${(y(shape.sheer(r.xM)) - 2).toFixed(1)}" font-size="6" text-anchor="middle">${r.no}: ${Math.round(r.belowRailM * 1000)}</text>`,
        ],
  );
  const [width, height] = [
    profile.lengthM * MM_PER_M + 2 * PAD_MM,
    (profile.topM - profile.bottomM) * MM_PER_M + 2 * PAD_MM,
  ];
  const title = escaped(`${view.boat.name}, ${line?.line.name ?? 'waterline'}, 1 : 10, mm below the rail`);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width.toFixed(1)}mm" height="${height.toFixed(1)}mm" viewBox="0 0 ${width.toFixed(1)} ${height.toFixed(1)}" font-family="sans-serif">`,
    `<title>${title}</title>`,
    ...[profile.hull, ...(profile.regions.keel ?? []), ...(profile.regions.rudder ?? [])].map(outline),
    ...drawn,
    band.length > 1 ? path(band, 'stroke="#000" stroke-width="0.5"') : '',
    ...stations,
    `<text x="${PAD_MM}" y="${(height - 4).toFixed(1)}" font-size="8">${title}</text>`,
    '</svg>',
  ]
    .filter(Boolean)
    .join('\n');
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
