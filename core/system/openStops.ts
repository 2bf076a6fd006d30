import type { Layer } from '../model/layer';
import type { SheetRevision, Waters } from '../model/sheet';
import type { Surface } from '../model/surface';
import { checkBuildUp } from './checkBuildUp';
import { withSheets } from './ledger';
import { overrideKey, type Override } from './mend';
import type { Finding, ZoneRecord } from './stack';

/**
 * Stops of the rules about one coat of a zone that nobody has let stand.
 * @example
 *   openStops({
 *     surface: { substrate: 'aluminium', exposure: 'immersed', existing: 'bare' },
 *     buildUp: { layers, overrides: [], records: [], targetMicron: null },
 *     layerId: 'second',
 *     revisionById,
 *     waters: null,
 *   }).map((f) => f.rule) // → ['copperOnMetal', 'antifoulingOnCuredEpoxy']
 */
export function openStops(options: {
  surface: Pick<Surface, 'substrate' | 'exposure' | 'existing' | 'holds'>;
  buildUp: {
    readonly layers: readonly Layer[];
    readonly overrides: readonly Override[];
    readonly records: readonly Pick<ZoneRecord, 'kind'>[];
    readonly targetMicron: number | null;
  };
  layerId: string;
  revisionById: ReadonlyMap<string, SheetRevision>;
  waters: Waters | null;
}): Finding[] {
  const { surface, buildUp, layerId, revisionById, waters } = options;
  const { layers, overrides, records, targetMicron } = buildUp;
  const at = layers.findIndex((l) => l.id === layerId);
  const findings = checkBuildUp({
    substrate: surface.substrate,
    exposure: surface.exposure,
    existing: surface.existing,
    holds: surface.holds,
    layers: withSheets(layers, revisionById),
    waters,
    records: records.map((r) => r.kind),
    openWork: false,
    targetMicron,
  });
  return findings.filter(
    (f) => f.severity === 'stop' && f.upper === at && !overrides.some((o) => o.key === overrideKey(f, layers)),
  );
}
