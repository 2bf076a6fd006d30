import { sheet as example } from '../sheet/example.fixture';
import type { SheetBody } from '../model/sheet';
import type { StackLayer } from './stack';

/** Made-up sheets for tests of what may lie on what. */
const one = [{ name: 'Paint', role: 'base', ratio: 1, densityKgPerL: 1.3 }] as const;
const of = (name: string, kind: SheetBody['kind'], more: Partial<SheetBody> = {}): SheetBody => ({
  ...example,
  name,
  kind,
  ...more,
});
const single = (name: string, kind: SheetBody['kind'], more: Partial<SheetBody> = {}) =>
  of(name, kind, { parts: one, overcoat: [{ ...example.overcoat[0]!, tackLimit: null }], ...more });

export const sheets = {
  barrier: of('Barrier', 'barrier'),
  epoxyPrimer: of('Epoxy primer', 'primer'),
  tieCoat: of('Tie coat', 'tieCoat'),
  twoPackTopcoat: of('Two-pack topcoat', 'topcoat', {
    chemistry: 'polyurethane',
    dftMicron: 40,
    gloss: 'gloss',
    hidingCoats: 2,
  }),
  sealer: of('Sealer', 'sealer'),
  converter: single('Converter', 'converter'),
  onePackPrimer: single('One-pack primer', 'primer', { chemistry: 'alkyd' }),
  enamel: single('Enamel', 'topcoat', { chemistry: 'alkyd', dftMicron: 35 }),
  undercoat: single('Undercoat', 'undercoat', { chemistry: 'alkyd' }),
  polyester: of('Polyester filler', 'filler', { chemistry: 'polyester' }),
  copper: single('Copper hard', 'antifouling', { copper: true, antifouling: { type: 'hard', waters: ['salt'] } }),
  ablative: single('Copper ablative', 'antifouling', {
    copper: true,
    antifouling: { type: 'ablative', waters: ['salt', 'fresh'] },
  }),
  copperFree: single('Copper-free', 'antifouling', { copper: false, antifouling: { type: 'hard', waters: ['salt'] } }),
  onePackUrethane: single('One-pack urethane', 'topcoat', { chemistry: 'polyurethane', dftMicron: 35 }),
  rubber: single('Chlorinated rubber', 'primer', { chemistry: 'chlorinatedRubber' }),
  epoxyFiller: of('Epoxy filler', 'filler', { chemistry: 'epoxy' }),
  vinylBarrier: single('Vinyl barrier', 'barrier', { chemistry: 'vinyl' }),
  bilgeWhite: single('Bilge white', 'bilge', { chemistry: 'alkyd', dftMicron: 60 }),
  unsaid: single('Antifouling unsaid', 'antifouling'),
  nonSkid: of('Non-skid', 'nonSkid', { chemistry: 'polyurethane' }),
  tank: of('Tank coating', 'barrier', { potable: true }),
} satisfies Record<string, SheetBody>;

/** A coat of a fixture's sheet as it comes: rolled, in grey. */
export const coat = (name: keyof typeof sheets, more: Partial<StackLayer> = {}): StackLayer => ({
  sheet: sheets[name],
  dftMicron: sheets[name].dftMicron,
  method: 'roller',
  // A colour of its own has a name of its own: names decide.
  colour: more.colourHex ?? 'grey',
  colourHex: '#888888',
  ...more,
});
