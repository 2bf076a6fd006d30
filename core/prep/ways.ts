import type { AbradeFor } from '../model/layer';
import type { PrepKind, PrepWay } from '../model/prep';
import type { Surface } from '../model/surface';
import { usualWay, WAY_DRY_H } from './usualWay';

/** What a step of a usual way needs; a sheet's or a layer's own figures go before. */
export interface WayNeeds {
  readonly grit?: number;
  readonly abradeFor?: AbradeFor;
  /** Of water to one of concentrate. */
  readonly parts?: number;
  /** Wash water, L/m². */
  readonly waterLPerM2?: number;
  readonly dryH?: number;
  readonly fan?: true;
  /** Highest moisture, share. */
  readonly moistureMax?: number;
  readonly profileMicron?: readonly [number, number];
  readonly cleanliness?: string;
}

/** One step of a usual way. */
export interface WayStep {
  readonly kind: PrepKind;
  readonly why: string;
  readonly needs?: WayNeeds;
  /** Only where it is found to be needed: the list does not wait for it. */
  readonly ifNeeded?: true;
}

/** Water for a wash by hand, L/m². [M] */
const WASH_L_PER_M2 = 2;
export const RINSE: WayNeeds = { waterLPerM2: WASH_L_PER_M2 };
export const wash = (parts: number): WayNeeds => ({ parts, waterLPerM2: WASH_L_PER_M2 });

const step = (kind: PrepKind, why: string, needs?: WayNeeds): WayStep => ({ kind, why, ...(needs ? { needs } : {}) });
const ifNeeded = (kind: PrepKind, why: string, needs?: WayNeeds): WayStep => ({
  ...step(kind, why, needs),
  ifNeeded: true,
});

const MASK = step('mask', 'Edges, and what is never painted, before the last wipe.');
const WIPE = step('wipe', 'Dust and fingers off, with clean cloths, one to wet and one to dry.');
const TACK = step('tack', 'The last dust, drawn and not pressed: the wax stays on the cloth.');
const VACUUM = step('vacuum', 'Dust and grit out of profile and corners.');

/**
 * Usual ways of getting a surface ready. [CP; figures M] A degreasing wash 1 : 50, a salt-removing one 1 : 100 and a
 * passivating one 1 : 50 are typical [CP]: the product's own label goes before.
 */
export const WAYS: Readonly<Record<PrepWay, readonly WayStep[]>> = {
  blastedSteel: [
    step('lookOver', 'Mend what is known before blasting: bare steel waits for nobody. Look again after it.'),
    step('degrease', 'Blasting drives grease into the steel.', wash(50)),
    ifNeeded('saltRinse', 'Where a test finds chlorides: they go on rusting under the paint.', wash(100)),
    step('blast', 'No more than can be primed while it holds. The rest stays covered.', {
      profileMicron: [50, 100],
      cleanliness: 'Sa 2½',
    }),
    step('vacuum', 'Abrasive and dust off, with dry air or a vacuum: no bare hands.'),
    ifNeeded('passivate', 'Where primer cannot follow in time: it buys a few days.', wash(50)),
    MASK,
  ],
  steelByHand: [
    step('lookOver', 'Tap the plate, mark pits and scale.'),
    step('degrease', 'A wire brush only spreads grease.', wash(50)),
    step('needleGun', 'Scale and thick rust off.'),
    step('scrape', 'Edges of what holds, back to sound paint.'),
    step('wireBrush', 'Loose rust off; polished rust holds no paint.'),
    step('rinse', 'Salts out of the pits.', RINSE),
    step('dry', 'Converter and primer want a dry face.', { dryH: WAY_DRY_H.steelByHand }),
    step('convert', 'One or two coats; looked at next day: black is converted, red is not.'),
    step('abrade', 'Scuff: residue of the converter under epoxy does not hold.', { grit: 120, abradeFor: 'bond' }),
    WIPE,
    MASK,
  ],
  steelEpoxy: [
    step('lookOver', 'Tap the plate, mark pits and scale.'),
    step('degrease', 'Grease keeps a thin epoxy out.', wash(50)),
    step('needleGun', 'Scale and thick rust off.'),
    step('wireBrush', 'Loose rust off; what is tight gets soaked.'),
    step('rinse', 'Salts out of the pits.', RINSE),
    step('dry', 'A thin epoxy soaks into dry rust only.', { dryH: WAY_DRY_H.steelEpoxy }),
    WIPE,
    MASK,
  ],
  grpBarrier: [
    step('lookOver', 'Blisters, cracks, damp: opened and dried before anything closes them in.'),
    step('degrease', 'Wax of the mould and grease off first: sanding rubs them in.'),
    step('abrade', 'Gelcoat without a scratch does not hold a two-pack.', { grit: 80, abradeFor: 'bond' }),
    step('rinse', 'Dust and salts off.', RINSE),
    step('dry', 'Water under a barrier blisters it.', { dryH: WAY_DRY_H.grpBarrier }),
    step('wipe', 'With the solvent that the sheet names, the cloth turned often.'),
    MASK,
  ],
  onePackKept: [
    step(
      'lookOver',
      'Cross-cut it and look at the back of the flakes: rust or bare wood there, and all of it comes off.',
    ),
    ifNeeded('strip', 'Where it flakes, or rust or bare wood is on the back of it.'),
    step('degrease', 'Old polish and grease off.', wash(50)),
    step('rinse', 'Soap off.', RINSE),
    step('dry', 'Before it is sanded.', { dryH: WAY_DRY_H.onePackKept }),
    step('abrade', 'Dulled all over, edges feathered.', { grit: 180, abradeFor: 'bond' }),
    WIPE,
    MASK,
    TACK,
  ],
  twoPackKept: [
    step('lookOver', 'Cross-cut it: what is sound may stay.'),
    step('degrease', 'Wax and grease off before sanding rubs them in.', wash(50)),
    step('rinse', 'Soap off.', RINSE),
    step('dry', 'Before it is sanded.', { dryH: WAY_DRY_H.twoPackKept }),
    step('abrade', 'Cured two-pack holds only in a scratch.', { grit: 120, abradeFor: 'bond' }),
    WIPE,
    MASK,
  ],
  antifoulingKept: [
    step('lookOver', 'Sound, or flaking; which kind it is.'),
    step('wash', 'Slime and salt off, what runs off collected.', { waterLPerM2: 5 }),
    step('scrape', 'What is loose.'),
    ifNeeded('strip', 'Where it flakes, or nobody knows what it is: wet, and collected.'),
    step('abrade', 'Wet, never dry: its dust is poison.', { grit: 80, abradeFor: 'bond' }),
    step('rinse', 'Sludge off, and collected.', RINSE),
    step('dry', 'Before it is painted.', { dryH: WAY_DRY_H.antifoulingKept }),
    MASK,
  ],
  timber: [
    step('lookOver', 'Soft places, open seams and end grain.'),
    step('scrape', 'Old paint that does not hold.'),
    step('fill', 'Dents and fastenings, after the first sealer where the sheet asks for it.'),
    step('abrade', 'Along the grain; edges by hand, a machine goes straight through.', {
      grit: 120,
      abradeFor: 'bond',
    }),
    VACUUM,
    step('dry', 'Damp wood throws its paint off.', { dryH: WAY_DRY_H.timber, moistureMax: 0.15 }),
    WIPE,
    MASK,
  ],
  bilge: [
    step('lookOver', 'Emptied, aired, everything out that comes out.'),
    step('degrease', 'Oil is in every corner; leave it to work and brush.', wash(50)),
    step('rinse', 'Till the water runs clear, then out with it.', { waterLPerM2: 4 }),
    step('dry', 'A day with a fan: still air in a bilge dries nothing.', { dryH: WAY_DRY_H.bilge, fan: true }),
    step('abrade', 'Flattened, so that it holds and cleans easily.', { grit: 120, abradeFor: 'bond' }),
    step('vacuum', 'Dust out of the corners.'),
    step('wipe', 'The last oil, before the first coat.'),
  ],
  nonSkid: [
    step('degrease', 'Sunscreen, fish and fuel lie deep in the grit.', wash(50)),
    step('rinse', 'Scrubbed, not just hosed.', { waterLPerM2: 3 }),
    step('dry', 'It holds water between the grains.', { dryH: WAY_DRY_H.nonSkid }),
    step('abrade', 'Peaks keyed; a wire cup or coarse paper gets between the grains.', { grit: 80, abradeFor: 'bond' }),
    VACUUM,
    MASK,
    WIPE,
  ],
  aluminium: [
    step('lookOver', 'White corrosion, and other metals that touch it.'),
    step('degrease', 'Before it is scratched.', wash(50)),
    step('abrade', 'With clean paper, never a steel brush: what it leaves corrodes.', { grit: 80, abradeFor: 'bond' }),
    step('vacuum', 'Dust off at once.'),
    WIPE,
    ifNeeded('passivate', 'Etch, where the primer asks for it; rinsed off after.'),
    MASK,
  ],
  mineral: [
    step('lookOver', 'Cracks, rust stains, damp.'),
    step('wash', 'Laitance and salts off.', { waterLPerM2: 4 }),
    step('rinse', 'Till it runs clear.', { waterLPerM2: 4 }),
    step('dry', 'It dries slowly all through.', { dryH: WAY_DRY_H.mineral }),
    step('vacuum', 'Dust off.'),
    MASK,
  ],
};

/**
 * Ways that a zone may be got ready by, the usual one first.
 * @example waysFor({ kind: 'topsides', substrate: 'steel', existing: 'bare' }) // → ['blastedSteel', 'steelByHand', 'steelEpoxy']
 */
export function waysFor(surface: Pick<Surface, 'kind' | 'substrate' | 'existing'>): PrepWay[] {
  const usual = usualWay(surface);
  const { substrate } = surface;
  const others: PrepWay[] =
    substrate === 'steel'
      ? ['blastedSteel', 'steelByHand', 'steelEpoxy', 'twoPackKept', 'onePackKept']
      : substrate === 'aluminium'
        ? ['aluminium', 'twoPackKept']
        : substrate === 'gelcoat' || substrate === 'laminate'
          ? ['grpBarrier', 'twoPackKept', 'onePackKept']
          : substrate === 'ferrocement'
            ? ['mineral', 'twoPackKept']
            : ['timber', 'twoPackKept', 'onePackKept'];
  return [usual, ...others.filter((w) => w !== usual && (surface.existing !== 'bare' || !w.endsWith('Kept')))];
}
