import type { Coat } from '../coat/fold';
import type { Surface } from '../coat/zoneStatus';
import type { Layer } from '../film/layer';
import type { SheetBody, SheetRevision, Waters } from '../sheet/sheet';
import { coatNeeds, structureIsOpen, type CoatNeed } from '../stores/needs';
import { jobList, type JobProduct, type Parts } from '../stores/share';
import { checkBuildUp } from './checkBuildUp';
import { buildUpQuantities, type BuildUpQuantities, type SheetLayer } from './quantities';
import type { Finding, ZoneRecord } from './stack';

/** One zone and the build-up that is planned on it. */
export interface LedgerZone {
  readonly surface: Surface;
  readonly layers: readonly Layer[];
  readonly targetMicron: number | null;
  readonly records: readonly Pick<ZoneRecord, 'kind'>[];
}

export interface ZoneLedger {
  readonly surfaceId: string;
  readonly findings: readonly Finding[];
  /** Null where a coat's sheet is not here or its figures cannot be worked out. */
  readonly quantities: BuildUpQuantities | null;
}

export interface Ledger {
  readonly zones: readonly ZoneLedger[];
  readonly needs: readonly CoatNeed[];
  readonly products: readonly JobProduct[];
  readonly without: readonly string[];
}

/** The coats of a build-up, each with its sheet; those whose sheet is not here are left out. */
export function withSheets(layers: readonly Layer[], revisionById: ReadonlyMap<string, SheetRevision>): SheetLayer[] {
  return layers.flatMap((layer) => {
    const sheet = revisionById.get(layer.sheetRevisionId)?.body;
    return sheet ? [{ ...layer, sheet }] : [];
  });
}

/**
 * A job's build-ups held against the rules, counted in litres and in packs, all at once: what is shown while a film is
 * dragged. Pure and quick enough for every frame.
 */
export function ledger(options: {
  zones: readonly LedgerZone[];
  coats: readonly Coat[];
  revisionById: ReadonlyMap<string, SheetRevision>;
  waters: Waters | null;
  sheetOf: (sheetId: string) => SheetBody | undefined;
  onHandOf: (sheetId: string) => Parts;
  chance: number;
}): Ledger {
  const { zones, coats, revisionById, waters, sheetOf, onHandOf, chance } = options;
  const each = zones.map(({ surface, layers, targetMicron, records }): ZoneLedger => {
    const stack = withSheets(layers, revisionById);
    const findings = checkBuildUp({ substrate: surface.substrate, exposure: surface.exposure, existing: surface.existing, layers: stack, waters, records: records.map((r) => r.kind), openWork: structureIsOpen(surface), targetMicron });
    let quantities: BuildUpQuantities | null = null;
    try {
      if (stack.length === layers.length) quantities = buildUpQuantities({ areaM2: surface.areaM2, areaShare: surface.areaShare, layers: stack });
    } catch {
      // A figure of one coat cannot be: the findings stand all the same.
    }
    return { surfaceId: surface.id, findings, quantities };
  });
  const { needs, without } = coatNeeds({ surfaces: zones.map((z) => z.surface), buildUps: zones.map((z) => ({ surfaceId: z.surface.id, layers: z.layers })), coats, revisionById });
  return { zones: each, needs, products: jobList({ needs, sheetOf, onHandOf, chance }), without };
}
