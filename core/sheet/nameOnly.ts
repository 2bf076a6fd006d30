import { NO_LIMITS, type SheetBody, type SheetKind } from '../model/sheet';

/** What a coat of a kind usually is, dry, µm. [M] */
const USUAL_DFT_MICRON: Partial<Record<SheetKind, number>> = { barrier: 100, antifouling: 50, topcoat: 40, primer: 60 };

/**
 * A sheet for a product of which only the name and kind are known, so that a coat of it can be written down today. Its
 * figures are stand-ins and marked so.
 * @example nameOnlySheet({ name: 'Old blue tin', kind: 'antifouling', colour: { name: 'blue', hex: '#27415f' } }).nameOnly // → true
 */
export function nameOnlySheet(options: {
  name: string;
  kind: SheetKind;
  colour: { name: string; hex: string };
}): SheetBody {
  const { name, kind, colour } = options;
  return {
    name,
    maker: '',
    code: '',
    kind,
    quick: true,
    nameOnly: true,
    parts: [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: null }],
    ratioBasis: 'volume',
    solids: 0.5,
    dftMicron: USUAL_DFT_MICRON[kind] ?? 50,
    dftMaxMicron: null,
    thinner: null,
    inductionMin: null,
    potLife: null,
    touchDry: null,
    sandable: null,
    immersion: null,
    fullCure: null,
    overcoat: [],
    limits: NO_LIMITS,
    minCureC: null,
    packs: [],
    colours: [colour],
    caution: '',
  };
}
