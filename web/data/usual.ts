import { v7 as uuid } from 'uuid';
import { usPacks } from '#core/sheet/market';
import type { Layer } from '#core/model/layer';
import type { SheetBody } from '#core/model/sheet';
import type { BuildUpRow, SurfaceRow } from '#contracts/rows/boat';
import type { Library, SheetRow } from '#contracts/rows/sheet';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import type { Change } from './changes';
import { settings } from './settings';
import { useLibrary, useNamed, useSheets } from './store';

/** The currency that the made-up prices are in. */
const PRICED_IN = 'EUR';

/** A made-up sheet as it would be sold where this device is: its packs, and a price only in its own currency. */
function asSoldHere(body: SheetBody, currency: string): SheetBody {
  if (settings().units.system === 'us') return { ...body, packs: usPacks(body.packs) };
  if (currency === PRICED_IN) return body;
  return { ...body, packs: body.packs.map(({ breaks: _breaks, ...pack }) => ({ ...pack, priceMinor: null })) };
}

/** The made-up sheets that are not here yet, as one change. */
export function takeSheets(wanted: Library['sheets'], currency: string): Change {
  const sheets = wanted.map((s) => ({ ...s, body: asSoldHere(s.body, currency) }));
  return { kind: 'sheetImport', id: uuid(), taken: true, sheets };
}

/** The build-up of a zone that has none yet. */
export const emptyBuildUp = ({ id, boatId }: Pick<SurfaceRow, 'id' | 'boatId'>): BuildUpRow => ({
  id: uuid(),
  boatId,
  surfaceId: id,
  layers: [],
  namedId: null,
  targetMicron: null,
  overrides: [],
  records: [],
  version: 0,
  deleted: false,
});

export interface Usual {
  /** Named build-ups of the yard, and the usual ones that it has not taken in. */
  readonly list: readonly NamedBuildUpRow[];
  readonly isHere: (row: NamedBuildUpRow) => boolean;
  /** What has to be written before they can be used: their sheets, and the build-ups themselves. */
  readonly takeIn: (rows: readonly NamedBuildUpRow[]) => Change[];
  /** Its coats for a zone on which nothing is. */
  readonly fresh: (row: NamedBuildUpRow) => Layer[];
}

/** Which build-ups can be had with a tap, and what a tap writes; null until both lists are here. */
export function useUsual(currency: string): Usual | null {
  const { named } = useNamed();
  const { data: sheets } = useSheets();
  const { data: library } = useLibrary();
  return named && sheets && library ? usualOf({ named, sheets, library, currency }) : null;
}

function usualOf(options: {
  named: readonly NamedBuildUpRow[];
  sheets: readonly SheetRow[];
  library: Library;
  currency: string;
}): Usual {
  const { named, sheets, library, currency } = options;
  const isHere = (row: NamedBuildUpRow) => named.some((n) => n.id === row.id);
  const shipped = library.starters.map((s) => ({ ...s, version: 0, deleted: false }));
  return {
    list: [...named, ...shipped.filter((s) => !isHere(s))],
    isHere,
    takeIn: (rows) => {
      const missing = rows.filter((row) => !isHere(row));
      const asked = new Set(missing.flatMap((row) => row.layers.map((l) => l.sheetRevisionId)));
      const wanted = library.sheets.filter((s) => asked.has(s.revisionId) && !sheets.some((have) => have.id === s.id));
      return [
        ...(wanted.length > 0 ? [takeSheets(wanted, currency)] : []),
        ...missing.map((row): Change => ({ kind: 'named', row })),
      ];
    },
    fresh: (row) => row.layers.map((l) => ({ ...l, id: uuid() })),
  };
}
