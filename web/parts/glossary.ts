/** Words of the trade, each in a sentence or two for whoever meets it first. Common practice. */
export const GLOSSARY = {
  film: [
    'Film',
    'The paint as it lies on the surface, by thickness: wet as it is combed, dry once its solvent is gone. A build-up is counted in dry film, not in coats.',
  ],
  school: [
    'School',
    'A way of working that sound painters disagree on, for example overcoating while it bonds as is, or letting each coat cure and abrading it.',
  ],
  tackWindow: [
    'In the tack window',
    'The next coat goes on while the one beneath has dried but not yet cured, so that the two bond without abrading.',
  ],
  bonds: [
    'Bonds as is',
    'The next coat may go on now, without abrading: the one beneath has dried long enough and has not cured yet.',
  ],
  shut: ['Shut', 'Too early for the next coat: solvent would be caught beneath it.'],
  abrade: [
    'Abrade first',
    'It has cured too far to bond by itself: scratch it all over, then the next coat has something to hold on to.',
  ],
  closed: ['Closed', 'Later than its sheet allows even when abraded: it is treated as an old coating.'],
  openWork: ['Open work', 'Something on the zone has to be done before paint: a repair, fairing, moving a stand.'],
  comb: [
    'Comb',
    'A card with teeth of rising height, set into the wet paint: the last tooth that is wetted tells the wet film.',
  ],
  letItStand: [
    'Let it stand',
    'Some mixes are left alone for some minutes before use, so that their parts begin to react. Sheets call it induction or sweat-in time.',
  ],
  spread: [
    'Spread',
    'How far the surface is above the dew point. Below 3 °C, or 5.4 °F, it may be damp without looking so.',
  ],
  takenIn: [
    'Taken in',
    'Copied from what ships with the program into this yard, to be changed as you like. One undo takes all of it back.',
  ],
  denny: [
    'Denny–Mumford',
    'A formula of naval architects for the wetted surface of a hull, from waterline length, draught and the volume that she displaces.',
  ],
  bootTop: ['Boot-top', 'The band at the waterline, between the bottom paint and the topsides.'],
  tieCoat: [
    'Tie coat',
    'A thin coat that lets one kind of paint hold on to another, antifouling on epoxy for example.',
  ],
  potLife: [
    'Pot life',
    'How long a mix of two parts can be used. Warm or in a large pot it is shorter; then it is thrown away, outdoors, since it may get hot.',
  ],
  guideCoat: [
    'Guide coat',
    'Dust or a thin mist of another colour over filler: what is left of it after blocking shows the low places.',
  ],
  converter: [
    'Rust converter',
    'An acid liquid that turns red rust black and holds it. It is looked at next day: what is still red has not been reached.',
  ],
  holdingPrimer: [
    'Holding primer',
    'A primer that keeps blasted steel for weeks or a winter, until it is washed, scuffed and coated further.',
  ],
  fairLine: [
    'Faired line',
    'A smooth curve through marks that are each a little off, instead of joining the dots; a mark that is quite wrong is named and left aside.',
  ],
  flare: [
    'Flare',
    'How far the side of a hull leans outwards from upright. The more it leans, the wider a tape has to be for the same height.',
  ],
} as const satisfies Record<string, readonly [term: string, meaning: string]>;

export type Term = keyof typeof GLOSSARY;
