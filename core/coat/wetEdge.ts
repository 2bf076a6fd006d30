import { potLifeAtH } from '../mix/pot';
import type { SheetBody, SheetRevision } from '../model/sheet';
import type { Coat } from './fold';
import { USUAL_WET_EDGE_H } from './sections';

const HOUR_MS = 3_600_000;
/** Sheets give it at this temperature. [CP] */
const AT_C = 20;

/**
 * How long an edge stays wet, h: by the sheet, else what is usual; hotter than 20 °C it is shorter, as a pot is.
 * @param tempC of the surface or the air; null where nobody knows
 * @throws RangeError on an impossible temperature
 * @example wetEdgeH({ ...sheet, wetEdgeMin: 30 }, 30) // → 0.25
 */
export function wetEdgeH({ wetEdgeMin }: Pick<SheetBody, 'wetEdgeMin'>, tempC: number | null): number {
  const hours = wetEdgeMin === undefined ? USUAL_WET_EDGE_H : wetEdgeMin / 60;
  return tempC === null ? hours : potLifeAtH({ potLifeH: hours, atC: AT_C, tempC });
}

/**
 * When the edge of what was painted last is no longer wet, epoch ms; null while nobody is at the coat.
 * @example wetEdgeAt({ coat: coats[0], hours: 0.25 }) // → null
 */
export function wetEdgeAt({
  coat,
  hours,
}: {
  coat: Pick<Coat, 'entries' | 'startedAt' | 'finishedAt' | 'pausedAt'>;
  hours: number;
}): number | null {
  if (coat.finishedAt !== null || coat.pausedAt !== null) return null;
  const newest = coat.entries.findLast((e) => e.kind === 'covered' || e.kind === 'resumed' || e.kind === 'started');
  return (newest?.occurredAt ?? coat.startedAt) + hours * HOUR_MS;
}

/** The wet edge of a coat that goes on. */
export interface WetEdge {
  readonly coatId: string;
  readonly surfaceId: string;
  readonly at: number;
}

/**
 * Wet edges of the coats that go on.
 * @example wetEdges({ coats, sheets: [revision], airC: 20 }) // → []
 */
export function wetEdges(options: {
  coats: readonly Coat[];
  sheets: readonly Pick<SheetRevision, 'id' | 'body'>[];
  airC: number | null;
}): WetEdge[] {
  const bodies = new Map(options.sheets.map((s) => [s.id, s.body]));
  return options.coats.flatMap((coat) => {
    if (coat.finishedAt !== null) return [];
    const sheet = bodies.get(coat.sheetRevisionId);
    const [first] = coat.on;
    const at = sheet && first ? wetEdgeAt({ coat, hours: wetEdgeH(sheet, options.airC) }) : null;
    return at === null || !first ? [] : [{ coatId: coat.id, surfaceId: first.surfaceId, at }];
  });
}
