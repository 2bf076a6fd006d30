import { finite, notNegative } from '../guard';
import { Impossible } from '../impossible';

/** How far loss and film vary from coat to coat on their own, ± as a 95 % half-width. [M] */
export const COAT_SHARE = 0.15;

/** ± as a 95 % half-width is two of σ. */
const SIGMAS = 2;

/**
 * The standard normal quantile, by the rational approximation of P. J. Acklam (relative error below 1.2e-9,
 * [M]; checked against the printed table and a reference library).
 * @param chance above 0, below 1
 * @throws RangeError outside it
 */
export function normalQuantile(chance: number): number {
  if (!(finite(chance, 'The chance') > 0 && chance < 1))
    throw new Impossible('The chance must be between 0 and 100 %.');
  const tail = 0.02425;
  if (chance < tail) return tailOf(chance);
  if (chance > 1 - tail) return -tailOf(1 - chance);
  const q = chance - 0.5;
  const r = q * q;
  return (
    ((((((-3.969683028665376e1 * r + 2.209460984245205e2) * r - 2.759285104469687e2) * r + 1.38357751867269e2) * r -
      3.066479806614716e1) *
      r +
      2.506628277459239) *
      q) /
    (((((-5.447609879822406e1 * r + 1.615858368580409e2) * r - 1.556989798598866e2) * r + 6.680131188771972e1) * r -
      1.328068155288572e1) *
      r +
      1)
  );
}

function tailOf(p: number): number {
  const q = Math.sqrt(-2 * Math.log(p));
  return (
    (((((-7.784894002430293e-3 * q - 3.223964580411365e-1) * q - 2.400758277161838) * q - 2.549732539343734) * q +
      4.374664141464968) *
      q +
      2.938163982698783) /
    ((((7.784695709041462e-3 * q + 3.224671290700398e-1) * q + 2.445134137142996) * q + 3.754408661907416) * q + 1)
  );
}

/** The standard normal distribution function, to 1e-9: the quantile turned round by halving. */
export function normalChance(z: number): number {
  finite(z, 'The deviation');
  if (z < -6) return 0;
  if (z > 6) return 1;
  let low = 1e-12;
  let high = 1 - 1e-12;
  while (high - low > 1e-10) {
    const middle = (low + high) / 2;
    if (normalQuantile(middle) < z) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Litres that something takes: the likely figure and σ of it. */
export interface Need {
  readonly likelyL: number;
  readonly sigmaL: number;
}

/**
 * Add up what coats take. The area's error is shared by all coats of a zone; what a coat varies by is its own.
 * @param coats litres of each coat, the zone it lies on, ± of that zone's area
 */
export function sumNeeds(
  coats: readonly { readonly zone: string; readonly likelyL: number; readonly areaShare: number }[],
  coatShare = COAT_SHARE,
): Need {
  const byZone = new Map<string, number>();
  let own = 0;
  let likelyL = 0;
  for (const coat of coats) {
    likelyL += notNegative(coat.likelyL, 'The litres of a coat');
    byZone.set(coat.zone, (byZone.get(coat.zone) ?? 0) + (coat.likelyL * notNegative(coat.areaShare, '±')) / SIGMAS);
    own += ((coat.likelyL * coatShare) / SIGMAS) ** 2;
  }
  const shared = [...byZone.values()].reduce((sum, s) => sum + s * s, 0);
  return { likelyL, sigmaL: Math.sqrt(shared + own) };
}

/** Litres that are enough with the chance wanted: 0.9 is enough in 9 cases of 10. */
export function litresForChance({ likelyL, sigmaL }: Need, chance: number): number {
  return Math.max(0, likelyL + normalQuantile(chance) * sigmaL);
}

/** The chance that so many litres are enough, 0–1. */
export function chanceEnough({ likelyL, sigmaL }: Need, litres: number): number {
  if (sigmaL <= 0) return litres + 1e-9 >= likelyL ? 1 : 0;
  return normalChance((litres - likelyL) / sigmaL);
}
