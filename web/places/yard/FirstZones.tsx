import { zoneArea } from '#core/hull/zoneArea';
import type { ZoneKind } from '#core/model/surface';
import type { Boat } from '#contracts/rows/boat';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import type { Change } from '../../data/changes';
import { emptyBuildUp, type Usual } from '../../data/usual';
import { attempt } from '../../parts/attempt';
import { ZONE_WORDS } from '../../parts/choiceWords';
import { SelectField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { newSurface, newZone } from '../../parts/newZone';
import { useSpoken } from '../../parts/spoken';
import { shareWords } from '../../parts/words';

/** What most boats are hauled for. */
const FIRST_ZONES = ['underwater', 'topsides', 'bootTop'] as const;
type FirstZone = (typeof FIRST_ZONES)[number];

/** Of each first zone, whether it is wanted and the build-up that it is to have; '' for none yet. */
export type Offer = Readonly<Record<FirstZone, { readonly on: boolean; readonly namedId: string | null }>>;

export const NO_OFFER: Offer = {
  underwater: { on: true, namedId: null },
  topsides: { on: false, namedId: null },
  bootTop: { on: false, namedId: null },
};

const fitting = (usual: Usual, boat: Boat, kind: ZoneKind): NamedBuildUpRow[] => {
  const { substrate, exposure } = newZone(boat, kind, 0);
  return usual.list.filter((n) => n.exposure === exposure && n.substrates.includes(substrate));
};

/** The build-up that stands there: what was picked, else the first that fits where a list is wanted. */
function chosen(
  usual: Usual | null,
  boat: Boat,
  kind: FirstZone,
  offer: Offer,
  buying: boolean,
): NamedBuildUpRow | null {
  if (!usual) return null;
  const fits = fitting(usual, boat, kind);
  const { namedId } = offer[kind];
  return namedId === null ? (buying ? (fits[0] ?? null) : null) : (fits.find((n) => n.id === namedId) ?? null);
}

/** The zones that are wanted with their build-ups, as they are written after the boat. */
export function zoneChanges(options: { usual: Usual | null; boat: Boat; offer: Offer; buying: boolean }): Change[] {
  const { usual, boat, offer, buying } = options;
  const zones = FIRST_ZONES.filter((kind) => offer[kind].on).map((kind, i) => {
    return { row: newSurface(boat, kind, i + 1), named: chosen(usual, boat, kind, offer, buying) };
  });
  const named = [...new Set(zones.flatMap((z) => z.named ?? []))];
  return [
    ...(usual ? usual.takeIn(named) : []),
    ...zones.map((z): Change => ({ kind: 'surface', row: z.row })),
    ...zones.flatMap(({ row, named }): Change[] =>
      usual && named
        ? [
            {
              kind: 'buildUp',
              row: {
                ...emptyBuildUp(row),
                layers: usual.fresh(named),
                namedId: named.id,
                targetMicron: named.targetMicron,
              },
            },
          ]
        : [],
    ),
  ];
}

/** The first zones of a new boat with their areas, and for each the build-ups that are usual on it. */
export function FirstZones({
  boat,
  drawable,
  usual,
  offer,
  buying,
  onOffer,
}: {
  boat: Boat;
  drawable: boolean;
  usual: Usual | null;
  offer: Offer;
  buying: boolean;
  onOffer: (offer: Offer) => void;
}) {
  const say = useSpoken();
  return (
    <fieldset className="min-w-0">
      <legend className="ruled w-full pb-1">
        <h2>To paint</h2>
      </legend>
      <ul className="sheet-rule">
        {FIRST_ZONES.map((kind) => {
          const { on } = offer[kind];
          const area = drawable ? attempt(() => zoneArea({ ...newZone(boat, kind, 0), boat })).value : null;
          const fits = usual ? fitting(usual, boat, kind) : [];
          const put = (change: Partial<Offer[FirstZone]>) =>
            onOffer({ ...offer, [kind]: { ...offer[kind], ...change } });
          return (
            <li key={kind} className="py-1.5">
              <label className="flex min-h-11 items-center gap-3">
                <input
                  type="checkbox"
                  className="checkbox"
                  checked={on}
                  onChange={(e) => put({ on: e.target.checked })}
                />
                <span className="mr-auto">{ZONE_WORDS[kind]}</span>
                {area && (
                  <span>
                    <Fig quantity="area" value={area.areaM2} approx className="text-xl" />{' '}
                    <span className="narrow quiet">± {shareWords(area.share)}</span>
                  </span>
                )}
              </label>
              {on && fits.length > 0 && (
                <SelectField
                  label={`Build-up of ${ZONE_WORDS[kind].toLowerCase()}`}
                  value={chosen(usual, boat, kind, offer, buying)?.id ?? ''}
                  options={[
                    ['', 'none yet'],
                    ...fits.map(
                      (n) =>
                        [
                          n.id,
                          `${say(n.name)}, ${n.layers.length} coats${usual?.isHere(n) ? '' : ' (usual)'}`,
                        ] as const,
                    ),
                  ]}
                  onPick={(namedId) => put({ namedId })}
                />
              )}
            </li>
          );
        })}
      </ul>
      <p className="text-sm quiet">
        Areas are estimates from her dimensions; more zones and better ways are under Hull. The usual build-ups are
        common practice, of made-up products: put your own in their place under Film.
      </p>
    </fieldset>
  );
}
