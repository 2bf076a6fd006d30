import type { OvercoatTimes, SheetBody, SheetKind } from '../model/sheet';

/** The overcoat times that hold when `following` comes next: its own entry, else `any`, else null. */
export function overcoatFor(sheet: SheetBody, following: SheetKind | null): OvercoatTimes | null {
  return sheet.overcoat.find((o) => o.after === following) ?? sheet.overcoat.find((o) => o.after === 'any') ?? null;
}
