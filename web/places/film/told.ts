import type { SheetRevision } from '#core/sheet/sheet';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import type { SectionCoat } from './section/Stack';

/** Coats of one product that follow each other. */
function runs(coats: readonly SectionCoat[]): { name: string; coats: SectionCoat[] }[] {
  const out: { name: string; coats: SectionCoat[] }[] = [];
  for (const coat of coats) {
    const last = out[out.length - 1];
    if (last?.name === coat.name) last.coats.push(coat);
    else out.push({ name: coat.name, coats: [coat] });
  }
  return out;
}

/** The build-up for people who count coats: "4 of Saltgate barrier in grey, white, grey, white". */
export function coatsTold(coats: readonly SectionCoat[]): string {
  const told = runs(coats).map((r) => {
    const colours = r.coats.map((c) => c.layer.colour).filter(Boolean);
    return `${r.coats.length} of ${r.name}${new Set(colours).size > 1 ? ` in ${colours.join(', ')}` : ''}`;
  });
  return `In coats: ${told.join('; ')}.`;
}

/** The same for people who measure film: "barrier 280 µm, tie coat 40 µm". */
export function filmTold(coats: readonly SectionCoat[], sheetById: ReadonlyMap<string, SheetRevision>, units: UnitChoice): string {
  const film = (list: readonly SectionCoat[]) => formatQuantity('film', list.reduce((sum, c) => sum + c.keptMicron, 0), units);
  const epoxy = coats.filter((c) => sheetById.get(c.layer.sheetRevisionId)?.body.kind === 'barrier');
  const told = runs(coats).map((r) => `${r.name} ${film(r.coats)}`);
  return `${told.join(', ')}${epoxy.length > 0 && runs(coats).length > 1 ? `; barrier ${film(epoxy)} in all` : ''}.`;
}
