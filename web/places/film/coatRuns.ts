import type { SheetRevision } from '#core/model/sheet';
import type { SectionCoat } from './section/coat';

/** Coats of one product that follow each other, for people who count coats and for those who measure film. */
export interface Run {
  readonly name: string;
  readonly coats: number;
  /** Told where they alternate. */
  readonly colours: readonly string[];
  /** What is left of them after abrading. */
  readonly keptMicron: number;
}

/** A build-up told for the two schools of barrier people: runs from the substrate out, and the film of all barrier coats where something lies between them. */
export function coatRuns(
  coats: readonly SectionCoat[],
  sheetById: ReadonlyMap<string, SheetRevision>,
): { runs: Run[]; barrierMicron: number | null } {
  const groups: SectionCoat[][] = [];
  for (const coat of coats) {
    const last = groups[groups.length - 1];
    if (last?.[0]?.name === coat.name) last.push(coat);
    else groups.push([coat]);
  }
  const kept = (list: readonly SectionCoat[]) => list.reduce((sum, c) => sum + c.keptMicron, 0);
  const barrier = groups.filter(([c]) => c && sheetById.get(c.layer.sheetRevisionId)?.body.kind === 'barrier');
  return {
    runs: groups.map((group) => {
      const colours = group.map((c) => c.layer.colour).filter(Boolean);
      return {
        name: group[0]?.name ?? '',
        coats: group.length,
        colours: new Set(colours).size > 1 ? colours : [],
        keptMicron: kept(group),
      };
    }),
    barrierMicron: barrier.length > 1 ? kept(barrier.flat()) : null,
  };
}
