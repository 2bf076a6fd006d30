import { USUAL_RATE_M2_PER_H } from '#core/film/spreading';
import type { PaintMethod } from '#core/model/paintMethod';
import type { YardRules } from '#contracts/rows/stores';

/** m² an hour of one painter: the rate that the yard has taken for a product, else the usual one. */
export function rateOf(
  rules: Pick<YardRules, 'rates'> | undefined,
  sheetId: string | undefined,
  method: PaintMethod,
): number {
  const taken = rules?.rates.find((r) => r.sheetId === sheetId && r.method === method);
  return taken?.rateM2PerH ?? USUAL_RATE_M2_PER_H[method];
}
