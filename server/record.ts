import { DateTime } from 'luxon';
import Papa from 'papaparse';
import { dewPointC } from '#core/air/dewPoint';
import { foldLog } from '#core/coat/fold';
import { measuredFilm } from '#core/coat/measuredFilm';
import { paintOn } from '#core/coat/paintOn';
import { zoneNames } from '#core/hull/zones';
import { RUNS_AS_FORMULA } from '#core/csv';
import type { BoatBundle } from '#contracts/rows/boat';

/**
 * The coat sheets of a boat as CSV, one row a coat and zone, SI units in the headings. Text that a
 * spreadsheet would run as a formula is made harmless.
 */
export function coatSheetsCsv(bundle: BoatBundle): string {
  const { boat } = bundle;
  const local = (at: number | null) =>
    at === null ? '' : DateTime.fromMillis(at, { zone: boat.timeZone }).toISO({ suppressMilliseconds: true });
  const number = (value: number | null | undefined, digits: number) =>
    value === null || value === undefined ? '' : Number(value.toFixed(digits));
  const names = zoneNames(bundle);
  const sheets = new Map(bundle.sheets.map((s) => [s.id, s]));
  const builds = new Map(bundle.buildUps.map((b) => [b.surfaceId, b]));
  const log = foldLog(bundle.entries);
  const batches = new Map(log.batches.map((b) => [b.id, b]));
  const rows = log.coats.flatMap((coat) => {
    const revision = sheets.get(coat.sheetRevisionId);
    const film = revision ? measuredFilm(coat, revision.body.solids) : null;
    const reading = coat.readings.find((r) => r.airC !== null && r.rh !== null);
    const dew = reading ? dewPointC({ airC: reading.airC as number, rh: reading.rh as number }) : null;
    const surfaceC = coat.readings.find((r) => r.surfaceC !== null)?.surfaceC ?? null;
    const poured = coat.batches.flatMap(
      (b) => batches.get(b.batchId)?.parts.map((p) => `${p.name} ${p.volumeL.toFixed(3)} L`) ?? [],
    );
    const used = coat.batches.flatMap((b) => batches.get(b.batchId) ?? []);
    const stood = used.filter((b) => b.standMin > 0).map((b) => `to stand ${b.standMin} min from ${local(b.mixedAt)}`);
    const thinnerL = used.reduce((sum, b) => sum + b.thinnerL, 0);
    const first = coat.on[0];
    const layer = builds.get(first?.surfaceId ?? '')?.layers.find((l) => l.id === first?.layerId) ?? null;
    const paint = revision ? paintOn({ coat, sheet: revision.body, layer, wetMicron: film?.wetMicron ?? null }) : null;
    return coat.on.map((target) => ({
      boat: boat.name,
      zone: names.get(target.surfaceId) ?? '(removed zone)',
      product: revision?.body.name ?? '',
      maker: revision?.body.maker ?? '',
      'sheet revision': revision?.revision ?? '',
      colour: coat.colour,
      method: coat.method,
      started: local(coat.startedAt),
      finished: local(coat.finishedAt),
      'air °C': number(reading?.airC, 1),
      'RH %': reading ? number((reading.rh as number) * 100, 0) : '',
      'surface °C': number(surfaceC, 1),
      'dew point °C': number(dew, 1),
      'spread °C': dew !== null && surfaceC !== null ? number(surfaceC - dew, 1) : '',
      'thinner % of mixed': number(coat.thinner * 100, 1),
      'planned dry film µm': number(coat.dftMicron, 0),
      'wet film readings µm': coat.wetFilms.flatMap((w) => w.micron.map((m) => Math.round(m))).join(' '),
      'mean wet film µm': number(film?.wetMicron, 0),
      'dry film from wet µm': number(film?.dryMicron, 0),
      'litres mixed': paint && paint.mixedL > 0 ? number(paint.mixedL, 3) : '',
      'litres left in pot': number(coat.leftL, 3),
      'litres lost': number(coat.lostL, 3),
      'litres on': number(coat.litresOn, 3),
      'thinner poured L': used.length > 0 ? number(thinnerL, 3) : '',
      poured: poured.join('; '),
      stand: stood.join('; '),
      painter: coat.painter,
      'grit beneath': coat.abradedGrit ?? '',
      'abraded for': coat.abradedFor ?? '',
      'hand tests': coat.handTests
        .map(
          (t) =>
            `${local(t.at)} ${t.test} ${t.passed ? 'passed' : 'failed'}${t.surfaceId ? ` on ${names.get(t.surfaceId) ?? 'a removed zone'}` : ''}`,
        )
        .join('; '),
      'against it at the start': (coat.against ?? []).join(' '),
      'started against advice because': coat.overrideReason ?? '',
      'rule let stand because': (builds.get(target.surfaceId)?.overrides ?? [])
        .filter((o) => o.key.includes(`:${target.layerId}/`))
        .map((o) => o.reason)
        .join(' | '),
      notes: coat.notes.map((n) => n.text).join(' | '),
      'corrected entries': coat.superseded.length,
      'share covered %': number((coat.covered.find((c) => c.surfaceId === target.surfaceId)?.share ?? 1) * 100, 0),
      stints: coat.stints.map((s) => `${local(s.from)} to ${local(s.to)} ${s.painters.join(' + ')}`).join('; '),
      'off its ratio because': used.flatMap((b) => b.ratioReason ?? []).join(' | '),
      pictures: coat.pictures.length,
    }));
  });
  return Papa.unparse(rows, { escapeFormulae: RUNS_AS_FORMULA, newline: '\r\n' });
}
