import { hoursAtTemperature, isEstimated, type MilestoneKind } from '../cure/arrhenius';
import type { SheetBody, SheetKind } from '../model/sheet';
import type { TimeTable } from '../model/timeTable';

/** A milestone of a sheet, in the order in which they matter at the tin. */
export type TinTime =
  | { readonly what: 'potLife' | 'touchDry' | 'sandable' | 'immersion' | 'fullCure' }
  | { readonly what: 'shortest' | 'longestAsIs' | 'longest'; readonly after: SheetKind | 'any' };

export type TinTimeAt = TinTime & {
  /** Hours at that temperature throughout; Infinity where it is too cold to get there. */
  readonly hours: number;
  /** One column of the sheet and a rule of thumb, not its own slope. */
  readonly estimated: boolean;
};

/**
 * What a sheet's clocks come to at one temperature: pot life, then overcoating by each kind that it tells apart, then the
 * rest. What the sheet does not give is left out.
 * @param options.tempC of the pot for the pot life, of the surface for the rest
 * @throws RangeError on an impossible table or temperature
 * @example timesAt({ sheet: { ...sheet, potLife: [{ tempC: 20, hours: 4 }], overcoat: [] }, tempC: 30 })[0].hours // → 2
 */
export function timesAt({ sheet, tempC }: { sheet: SheetBody; tempC: number }): TinTimeAt[] {
  const { minCureC } = sheet;
  const at = (what: TinTime, table: TimeTable | null | undefined, kind: MilestoneKind): TinTimeAt[] =>
    table
      ? [
          {
            ...what,
            hours: hoursAtTemperature({ table, tempC, kind, ...(minCureC === null ? {} : { minCureC }) }),
            estimated: isEstimated(table),
          },
        ]
      : [];
  return [
    ...at({ what: 'potLife' }, sheet.potLife, 'maximum'),
    ...at({ what: 'touchDry' }, sheet.touchDry, 'minimum'),
    ...sheet.overcoat.flatMap(({ after, minimum, tackLimit, maximum }) => [
      ...at({ what: 'shortest', after }, minimum, 'minimum'),
      ...at({ what: 'longestAsIs', after }, tackLimit, 'maximum'),
      ...at({ what: 'longest', after }, maximum, 'maximum'),
    ]),
    ...at({ what: 'sandable' }, sheet.sandable, 'minimum'),
    ...at({ what: 'immersion' }, sheet.immersion, 'minimum'),
    ...at({ what: 'fullCure' }, sheet.fullCure, 'minimum'),
  ];
}
