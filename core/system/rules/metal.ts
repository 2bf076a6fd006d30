import { isMetal, isOldAntifouling } from '../../hull/zones';
import type { SheetBody } from '../../model/sheet';
import {
  beneath,
  filmWords,
  finding,
  isAntifouling,
  isBarrier,
  isEpoxy,
  isLightMetal,
  keptFilms,
  type Finding,
  type Mend,
  type Rule,
} from '../stack';

/** A barrier that keeps copper off steel: the usual total against water. [CP] */
const FULL_BARRIER_MICRON = 250;

/** A sheet that does not say whether it holds copper, where it must not. */
const unsaid = ({ name }: SheetBody, i: number, where: string, copperFree: Mend): Finding =>
  finding(
    'copperOnMetal',
    'caution',
    i,
    'substrate',
    `The sheet of ${name} does not say whether it holds copper: ${where} it must not.`,
    copperFree,
  );

/** Copper on aluminium, or on metal without a full barrier, corrodes the hull. [CP] */
export const copperOnMetal: Rule = (stack) => {
  if (!isMetal(stack.substrate)) return [];
  const kept = keptFilms(stack.layers);
  return stack.layers.flatMap((layer, i) => {
    if (layer.sheet.copper === false || (layer.sheet.copper === undefined && !isAntifouling(layer.sheet))) return [];
    const copperFree = {
      kind: 'replace',
      at: i,
      want: { sheetKind: 'antifouling', copper: false },
      words: 'Change to a copper-free antifouling',
    } as const;
    if (isLightMetal(stack.substrate)) {
      if (layer.sheet.copper === undefined) return [unsaid(layer.sheet, i, 'on aluminium', copperFree)];
      return [
        finding(
          'copperOnMetal',
          'stop',
          i,
          'substrate',
          `${layer.sheet.name} holds copper: on aluminium it corrodes the hull.`,
          copperFree,
        ),
      ];
    }
    const barrier = stack.layers
      .slice(0, i)
      .reduce((sum, l, k) => sum + (isBarrier(l.sheet) ? (kept[k] as number) : 0), 0);
    // What lies there sound, and has kept copper off until now, does so for another year.
    const soundBeneath = stack.existing === 'twoPack' || isOldAntifouling(stack.existing);
    if (barrier >= FULL_BARRIER_MICRON || soundBeneath) return [];
    if (layer.sheet.copper === undefined)
      return [unsaid(layer.sheet, i, 'on steel with so little barrier', copperFree)];
    return [
      finding(
        'copperOnMetal',
        'stop',
        i,
        'substrate',
        `${layer.sheet.name} holds copper and only ${filmWords(barrier)} of barrier keeps it off the steel: below ${filmWords(FULL_BARRIER_MICRON)} it corrodes the hull.`,
        { kind: 'insert', at: i, want: { sheetKind: 'barrier' }, words: 'Put another barrier coat beneath it' },
        copperFree,
      ),
    ];
  });
};

/** A thin epoxy without solvent soaks into rust that cannot be blasted, in place of a primer: the other school. [CP] */
const soaksIn = (sheet: SheetBody) => sheet.kind === 'sealer' && isEpoxy(sheet) && sheet.solids >= 0.95;

/** Bare metal wants a primer that grips it first. [CP] */
export const primerOnBareMetal: Rule = (stack) => {
  const [first] = stack.layers;
  if (
    !first ||
    !isMetal(stack.substrate) ||
    stack.existing !== 'bare' ||
    ['primer', 'barrier', 'converter'].includes(first.sheet.kind) ||
    soaksIn(first.sheet)
  )
    return [];
  return [
    finding(
      'primerOnBareMetal',
      'caution',
      0,
      beneath(stack, 0),
      `${first.sheet.name} goes on bare metal: without a primer it does not grip.`,
      { kind: 'insert', at: 0, want: { sheetKind: 'primer', chemistry: 'epoxy' }, words: 'Put an epoxy primer first' },
    ),
  ];
};

/** Paint draws thin on edges and welds: they get a stripe coat by brush. [P: ISO 12944-5; CP] */
export const stripeOnEdges: Rule = (stack) => {
  if (!isMetal(stack.substrate) || stack.layers.some((l) => l.stripe)) return [];
  const at = stack.layers.findIndex((l) => isEpoxy(l.sheet));
  if (at < 0) return [];
  return [
    finding(
      'stripeOnEdges',
      'note',
      at,
      beneath(stack, at),
      'Paint draws thin on edges, welds and ribs: they want a stripe coat by brush before a full coat.',
      { kind: 'set', at, change: { stripe: true }, words: 'Stripe the edges before this coat' },
    ),
  ];
};
