import type { Coat } from '../coat/fold';
import type { Surface } from '../model/surface';
import type { Layer } from '../model/layer';
import type { LayerPerM2 } from '../film/layer';
import type { SheetBody, SheetRevision, Waters } from '../model/sheet';
import { perM2Of, structureIsOpen, zoneNeeds, type Needs, wholeOfCoats, type WholeOf } from '../stores/needs';
import { jobList, type JobProduct, type Parts } from '../stores/share';
import { checkBuildUp } from './checkBuildUp';
import { buildUpPerM2, type BuildUpPerM2, type SheetLayer } from './quantities';
import type { Finding, ZoneRecord } from './stack';

/** One zone and the build-up that is planned on it. */
export interface LedgerZone {
  readonly surface: Surface;
  readonly layers: readonly Layer[];
  readonly targetMicron: number | null;
  readonly records: readonly Pick<ZoneRecord, 'kind'>[];
}

export interface ZoneLedger extends Needs {
  readonly surfaceId: string;
  readonly findings: readonly Finding[];
  /** What its build-up takes of every m²; `buildUpOnArea` tells it for the zone. Null where a coat's sheet is not here or its figures cannot be worked out. */
  readonly perM2: BuildUpPerM2 | null;
}

export interface Ledger extends Needs {
  readonly zones: readonly ZoneLedger[];
  readonly products: readonly JobProduct[];
}

export interface LedgerOptions {
  readonly zones: readonly LedgerZone[];
  readonly coats: readonly Coat[];
  readonly revisionById: ReadonlyMap<string, SheetRevision>;
  readonly waters: Waters | null;
  readonly sheetOf: (sheetId: string) => SheetBody | undefined;
  readonly onHandOf: (sheetId: string) => Parts;
  readonly chance: number;
}

/**
 * The coats of a build-up, each with its sheet; those whose sheet is not here are left out.
 * @example withSheets(layers, revisionById).map((l) => l.sheet.kind) // → ['barrier', 'antifouling']
 */
export function withSheets(layers: readonly Layer[], revisionById: ReadonlyMap<string, SheetRevision>): SheetLayer[] {
  return layers.flatMap((layer) => {
    const sheet = revisionById.get(layer.sheetRevisionId)?.body;
    return sheet ? [{ ...layer, sheet }] : [];
  });
}

/**
 * A job's build-ups held against the rules, counted in litres and in packs, all at once: what is shown while a film is
 * dragged.
 * @example
 *   ledger({
 *     zones: [{ surface: zone, layers, records: [], targetMicron: null }],
 *     coats: [],
 *     revisionById,
 *     waters: null,
 *     sheetOf,
 *     onHandOf: () => [],
 *     chance: 0.9,
 *   }).products.length // → 2
 */
export function ledger(options: LedgerOptions): Ledger {
  const { sheetOf, onHandOf, chance } = options;
  const plans = new Map<readonly Layer[], Plan>();
  const planOf = (layers: readonly Layer[]): Plan => {
    const plan = plans.get(layers) ?? makePlan(layers, options);
    plans.set(layers, plan);
    return plan;
  };
  const planned = options.zones.map((zone) => ({ ...zone, plan: planOf(zone.layers) }));
  // What the other zones of a coat take is asked for only while one is going on.
  const wholeOf = wholeOfCoats(
    options.coats.some((c) => c.finishedAt === null) ? planned.map((z) => ({ ...z, perM2: z.plan.perM2OfEach })) : [],
  );
  const zones = planned.map((zone) => zoneLedger(zone, zone.plan, options, wholeOf));
  const needs = zones.flatMap((z) => z.needs);
  const products = jobList({ needs, sheetOf, onHandOf, chance });
  return { zones, needs, products, without: zones.flatMap((z) => z.without) };
}

/** What rests on the coats alone, worked out once for all the zones that are handed the same ones. */
interface Plan {
  readonly stack: readonly SheetLayer[];
  /** Null where a coat's sheet is not here or its figures cannot be worked out. */
  readonly perM2: BuildUpPerM2 | null;
  readonly perM2OfEach: readonly (LayerPerM2 | null)[];
  /** By what is known of the zone. */
  readonly findings: Map<string, readonly Finding[]>;
}

function makePlan(layers: readonly Layer[], { revisionById }: LedgerOptions): Plan {
  const stack = withSheets(layers, revisionById);
  let perM2: BuildUpPerM2 | null = null;
  try {
    if (stack.length === layers.length) perM2 = buildUpPerM2(stack);
  } catch {
    // A figure of one coat cannot be: the findings stand all the same.
  }
  return { stack, perM2, perM2OfEach: perM2?.layers ?? perM2Of(layers, revisionById), findings: new Map() };
}

function zoneLedger(
  { surface, layers, targetMicron, records }: LedgerZone,
  plan: Plan,
  { coats, revisionById, waters }: LedgerOptions,
  wholeOf: WholeOf,
): ZoneLedger {
  const { substrate, exposure, existing, holds } = surface;
  const kinds = records.map((r) => r.kind);
  const openWork = structureIsOpen(surface);
  const zone = [substrate, exposure, existing, holds, openWork, targetMicron, ...kinds].join();
  const findings =
    plan.findings.get(zone) ??
    checkBuildUp({
      substrate,
      exposure,
      existing,
      holds,
      layers: plan.stack,
      waters,
      records: kinds,
      openWork,
      targetMicron,
    });
  plan.findings.set(zone, findings);
  const perM2 = surface.areaM2 >= 0 ? plan.perM2 : null;
  return {
    surfaceId: surface.id,
    findings,
    perM2,
    ...zoneNeeds({ surface, layers, perM2: plan.perM2OfEach, coats, revisionById, wholeOf }),
  };
}
