import { finding, sameColour, type Rule, type StackLayer } from '../stack';

/** Finish before structure: open work under new paint. [CP] */
export const structureOpen: Rule = (stack) =>
  stack.openWork && stack.layers.length > 0
    ? [
        finding(
          'structureOpen',
          'caution',
          0,
          'substrate',
          'Repair, hot work, drilling or fairing is still open here: paint waits for it, or it comes off again.',
        ),
      ]
    : [];

/** A primer that is to hold over the winter must be one that can. [CP] */
export const holdsTooLong: Rule = (stack) =>
  stack.layers.flatMap((layer, i) => {
    if (!layer.holdMonths || layer.holdMonths <= (layer.sheet.holdingMonths ?? 0)) return [];
    const may = layer.sheet.holdingMonths;
    const reason = may
      ? `${layer.sheet.name} is to hold ${layer.holdMonths} months and its sheet gives it ${may}.`
      : `${layer.sheet.name} is to hold ${layer.holdMonths} months and its sheet does not say that it can.`;
    return [
      finding(
        'holdsTooLong',
        'caution',
        i,
        null,
        reason,
        may ? { kind: 'set', at: i, change: { holdMonths: may }, words: `Go on after ${may} months` } : null,
        { kind: 'repeat', at: i, times: 1, words: 'Add a coat of it' },
      ),
    ];
  });

/** Coats follow hiding as much as film: a tin that says two is often three over a contrasting colour. [CP] */
export const doesNotHide: Rule = (stack) => {
  const at = stack.layers.findLastIndex((l) => l.sheet.kind === 'topcoat');
  const last = stack.layers[at];
  if (!last?.sheet.hidingCoats || !last.colourHex) return [];
  let first = at;
  while (
    first > 0 &&
    stack.layers[first - 1]?.sheet.name === last.sheet.name &&
    sameColour(stack.layers[first - 1] as StackLayer, last)
  )
    first -= 1;
  const under = stack.layers[first - 1];
  const contrast =
    under?.colourHex !== undefined &&
    !sameColour(under, last) &&
    Math.abs(lightnessOf(under) - lightnessOf(last)) > 0.35;
  const needs = last.sheet.hidingCoats + (contrast ? 1 : 0);
  const has = at - first + 1;
  if (has >= needs) return [];
  return [
    finding(
      'doesNotHide',
      'note',
      at,
      first > 0 ? first - 1 : null,
      `${last.sheet.name} hides in ${needs} coats${contrast ? ' over a contrasting colour' : ''}; here it has ${has}.`,
      { kind: 'repeat', at, times: needs - has, words: needs - has === 1 ? 'Add a coat' : `Add ${needs - has} coats` },
    ),
  ];
};

/** How light colours are by their names, the darkest that is meant by one. */
const BY_NAME: readonly (readonly [RegExp, number])[] = [
  [/\bwhite\b/, 0.95],
  [/\b(cream|ivory|buff|yellow)\b/, 0.75],
  [/\b(grey|gray|silver)\b/, 0.5],
  [/\b(red|oxide|green|brown)\b/, 0.15],
  [/\b(navy|blue|black)\b/, 0.05],
];

/** How light a coat is: by the name of its colour, else as it is drawn. */
function lightnessOf({ colour, colourHex }: StackLayer): number {
  const named = BY_NAME.find(([name]) => name.test(colour?.toLowerCase() ?? ''));
  return named ? named[1] : lightness(colourHex ?? '#808080');
}

/** Relative luminance of a colour, 0 black to 1 white. [P: Rec. 709 weights] */
function lightness(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
