import { DateTime } from 'luxon';
import { USUAL_KIT } from '#core/model/kit';
import { USUAL_CONSUMABLES } from '#core/stores/consumables';
import { USUAL_RULES } from '#contracts/rows/stores';
import { lots, yardRules } from '../db/schema';
import { sheetIdOf } from '../library';
import { LIBRARY, type LibrarySheet } from '../library/sheets';

import type { Hand } from '#core/model/jobPlan';
import { DAY_MS, demoId, ZONE, type DemoYard } from './demoYard';

const hand = (name: string, more: Pick<Hand, 'toMin' | 'weekdays' | 'pace'>): Hand => ({
  name,
  fromMin: 8 * 60,
  off: [],
  perHourMinor: 3200,
  ...more,
});

/** The yard's rules with made-up prices, and its tins as they were last looked at a fortnight ago. */
export async function shelf(yard: DemoYard): Promise<void> {
  await yard.db.insert(yardRules).values({
    ...USUAL_RULES,
    consumables: [...USUAL_CONSUMABLES],
    hands: [
      hand('Ines', { toMin: 18 * 60, weekdays: [1, 2, 3, 4, 5, 6], pace: 1 }),
      hand('Tomasz', { toMin: 15 * 60, weekdays: [1, 2, 3, 4, 5], pace: 1.2 }),
    ],
    kit: {
      ...USUAL_KIT,
      pumps: [
        { id: 'p30', name: 'Red pump', mlPerStroke: 30 },
        { id: 'p10', name: 'White pump', mlPerStroke: 10 },
      ],
    },
    version: 1,
  });
  const day = (days: number) => DateTime.fromMillis(yard.now, { zone: ZONE }).plus({ days }).toISODate();
  let n = 0;
  const tin = async (
    sheet: LibrarySheet,
    part: string,
    sizeL: number,
    leftL: number,
    more: { bought?: number; opened?: number; expires?: number; batch?: string; note?: string } = {},
  ) => {
    n += 1;
    await yard.db.insert(lots).values({
      id: demoId(15, n),
      sheetId: sheetIdOf(sheet),
      part,
      sizeL,
      leftL,
      batchNumber: more.batch ?? '',
      supplier:
        LIBRARY[sheet].packs[0] && 'supplier' in LIBRARY[sheet].packs[0]
          ? (LIBRARY[sheet].packs[0].supplier ?? '')
          : '',
      boughtOn: day(more.bought ?? -60),
      openedOn: more.opened === undefined ? null : day(more.opened),
      expiresOn: more.expires === undefined ? null : day(more.expires),
      measuredAt: yard.now - 15 * DAY_MS,
      weighed: null,
      note: more.note ?? '',
      version: 1,
      deleted: false,
    });
  };
  const kit = async (sheet: LibrarySheet, baseL: number, hardenerL: number, batch: string, opened?: number) => {
    await tin(sheet, 'Base', baseL, baseL, { batch: `${batch} B`, ...(opened === undefined ? {} : { opened }) });
    await tin(sheet, 'Hardener', hardenerL, hardenerL, {
      batch: `${batch} H`,
      ...(opened === undefined ? {} : { opened }),
    });
  };
  await kit('barrier', 3.75, 1.25, 'SG 2604-11', -14);
  await kit('barrier', 3.75, 1.25, 'SG 2604-11');
  await kit('barrier', 3.75, 1.25, 'SG 2604-12');
  await tin('antifouling', 'Paint', 2.5, 2.5, { batch: 'DN 118' });
  await tin('antifouling', 'Paint', 0.75, 0.4, {
    batch: 'DN 96',
    opened: -200,
    note: 'From last season, stirred and sound.',
  });
  await kit('topcoat', 1.33, 0.67, 'LN 7 blue');
  await tin('barrier', 'Thinner T7', 1, 0.8, { opened: -30 });
  await tin('enamel', 'Paint', 2.5, 1.6, { batch: 'WK 41', opened: -30 });
  await tin('converter', 'Paint', 0.5, 0.3, { bought: -420, opened: -300, batch: 'TN 8', note: 'Skin on it.' });
  await tin('surfacer', 'Base', 0.5, 0.5, { bought: -300, expires: 20, batch: 'HW 3' });
}
