import { isOldAntifouling } from '../../hull/zones';
import {
  finding,
  isAntifouling,
  pairs,
  sameColour,
  type Finding,
  type Mend,
  type Rule,
  type Stack,
  type StackLayer,
} from '../stack';

/** Hard over ablative has nothing to hold on to; ablative over hard does. [CP] */
export const hardOverAblative: Rule = (stack) => [...hardOverOld(stack), ...hardOverCoat(stack)];

/** The first coat over antifouling that was there. */
function hardOverOld({ layers: [first], existing }: Stack): Finding[] {
  if (!first || first.sheet.antifouling?.type !== 'hard') return [];
  const soften = {
    kind: 'replace',
    at: 0,
    want: { sheetKind: 'antifouling', hard: false },
    words: 'Change to one that wears away',
  } as const;
  if (existing === 'antifoulingAblative')
    return [
      finding(
        'hardOverAblative',
        'stop',
        0,
        'existing',
        `${first.sheet.name} is hard and lies on antifouling that wears away beneath it.`,
        soften,
      ),
    ];
  if (existing === 'antifouling')
    return [
      finding(
        'hardOverAblative',
        'caution',
        0,
        'existing',
        `${first.sheet.name} is hard, and nobody knows whether the old antifouling wears away beneath it.`,
        soften,
      ),
    ];
  return [];
}

const hardOverCoat: Rule = (stack) =>
  pairs(stack).flatMap(({ lower, upper, i }) => {
    const [below, above] = [lower.sheet.antifouling?.type, upper.sheet.antifouling?.type];
    if (!below || !above) return [];
    if (above === 'hard' && below !== 'hard')
      return [
        finding(
          'hardOverAblative',
          'stop',
          i,
          i - 1,
          `${upper.sheet.name} is hard and lies on ${lower.sheet.name}, which wears away beneath it.`,
          {
            kind: 'replace',
            at: i,
            want: { sheetKind: 'antifouling', hard: false },
            words: 'Change to one that wears away',
          },
          { kind: 'remove', at: i - 1, words: `Take ${lower.sheet.name} out` },
        ),
      ];
    if (above !== 'hard' && below === 'hard' && upper.prep === undefined) {
      const ways: Mend[] = [
        { kind: 'set', at: i, change: { prep: 'tackWindow' }, words: 'Put it on inside the window' },
        {
          kind: 'set',
          at: i,
          change: { prep: 'abrade', abradeFor: 'bond', grit: 120 },
          words: 'Abrade the hard one first',
        },
      ];
      return [
        finding(
          'ablativeOverHard',
          'note',
          i,
          i - 1,
          `${upper.sheet.name} may lie on ${lower.sheet.name}: fresh inside its window, abraded after it.`,
          ...ways,
        ),
      ];
    }
    return [];
  });

/** Antifouling is made to come off: nothing but antifouling, or a coat made to tie, holds on it. [CP] */
export const overAntifouling: Rule = (stack) => {
  const holdsNot = ({ sheet }: StackLayer) => !isAntifouling(sheet) && sheet.kind !== 'tieCoat';
  const [first] = stack.layers;
  const strip = (at: number, name: string): Mend => ({ kind: 'remove', at, words: `Take ${name} out` });
  return [
    ...(first && isOldAntifouling(stack.existing) && holdsNot(first)
      ? [
          finding(
            'overAntifouling',
            'stop',
            0,
            'existing',
            `${first.sheet.name} goes over old antifouling, which lets go beneath it: take that off first.`,
            { kind: 'insert', at: 0, want: { sheetKind: 'tieCoat' }, words: 'Put a tie coat between' },
          ),
        ]
      : []),
    ...pairs(stack)
      .filter(({ lower, upper }) => isAntifouling(lower.sheet) && holdsNot(upper))
      .map(({ lower, upper, i }) =>
        finding(
          'overAntifouling',
          'stop',
          i,
          i - 1,
          `${upper.sheet.name} lies on ${lower.sheet.name}, which is made to come off: it lets go beneath it.`,
          strip(i - 1, lower.sheet.name),
          strip(i, upper.sheet.name),
        ),
      ),
  ];
};

/** A first coat in another colour shows where the antifouling has worn through. [CP] */
export const signalColour: Rule = (stack) => {
  const at = stack.layers.findIndex((l) => isAntifouling(l.sheet));
  const run = stack.layers.slice(at).filter((l) => isAntifouling(l.sheet));
  const [first] = run;
  if (at < 0 || !first || run.length < 2 || !first.colourHex || run.some((l) => !sameColour(l, first))) return [];
  const other = first.sheet.colours.find((c) => !sameColour({ ...first, colour: c.name, colourHex: c.hex }, first));
  return [
    finding(
      'signalColour',
      'note',
      at,
      null,
      'All antifouling coats have one colour: a first coat in another shows wear.',
      other
        ? {
            kind: 'set',
            at,
            change: { colour: other.name, colourHex: other.hex },
            words: `Make the first coat ${other.name}`,
          }
        : null,
    ),
  ];
};

/** Antifouling that is not made for the waters of this boat. [CP] */
export const watersNotSuited: Rule = (stack) => {
  const { waters } = stack;
  if (!waters) return [];
  const words = {
    salt: 'salt water',
    fresh: 'fresh water',
    slimeProne: 'water prone to slime',
    tropical: 'tropical water',
  }[waters];
  return stack.layers.flatMap((layer, i) => {
    const suits = layer.sheet.antifouling?.waters;
    if (!isAntifouling(layer.sheet) || !suits || suits.length === 0 || suits.includes(waters)) return [];
    return [
      finding('watersNotSuited', 'caution', i, null, `The sheet of ${layer.sheet.name} does not name ${words}.`, {
        kind: 'replace',
        at: i,
        want: { sheetKind: 'antifouling', waters },
        words: `Change to one for ${words}`,
      }),
    ];
  });
};
