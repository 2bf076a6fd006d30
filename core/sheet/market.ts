import type { SheetBody } from '../model/sheet';

type Pack = SheetBody['packs'][number];

/** What paint is sold in over a US counter, litres: 128 US fluid ounces to the gallon. [P: NIST Handbook 44, appendix C] */
const US_SIZES = [
  { name: '½ pt', sizeL: 0.236_588 },
  { name: '1 pt', sizeL: 0.473_176 },
  { name: '1 qt', sizeL: 0.946_353 },
  { name: '1 gal', sizeL: 3.785_412 },
  { name: '5 gal', sizeL: 18.927_059 },
] as const;

/** As near as a size is on a scale of ratios. */
const nearest = (litres: number) =>
  US_SIZES.reduce((best, size) =>
    Math.abs(Math.log(size.sizeL / litres)) < Math.abs(Math.log(best.sizeL / litres)) ? size : best,
  );

/**
 * Packs as the counter of a US shop would have them: the nearest size of each, once, without the price that another
 * size cost. Made for the made-up sheets that ship; the packs of a real product are typed from its shelf.
 * @example usPacks([{ name: '5 L kit', sizeL: 5, priceMinor: 25800 }])[0].name // → '1 gal kit'
 */
export function usPacks(packs: readonly Pack[]): Pack[] {
  const seen = new Set<string>();
  return packs.flatMap(({ breaks: _breaks, ...pack }) => {
    const size = nearest(pack.sizeL);
    const key = `${size.name} ${pack.part ?? ''}`;
    if (seen.has(key)) return [];
    seen.add(key);
    const scale = size.sizeL / pack.sizeL;
    const what = /(kit|can)$/.exec(pack.name)?.[0] ?? '';
    return [
      {
        ...pack,
        name: `${size.name} ${what}`.trim(),
        sizeL: size.sizeL,
        priceMinor: null,
        ...(pack.partsL ? { partsL: pack.partsL.map((l) => l * scale) } : {}),
      },
    ];
  });
}
