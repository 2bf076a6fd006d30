import type { SheetBody } from '#core/model/sheet';
import { useSettings } from '../../data/settings';
import { counted, formatQuantity, type UnitChoice } from '#core/units/format';
import { Line } from '../../parts/Fig';
import { ADDITIVE_WORDS, ANTIFOULING_WORDS, CHEMISTRY_WORDS, GLOSS_WORDS, WATERS_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS, shareWords } from '../../parts/words';

/** Whatever else the sheet says; what it does not say is not shown. */
export function Details({ body }: { body: SheetBody }) {
  const { units } = useSettings();
  const given = detailsOf(body, units).filter(([, words]) => words);
  if (given.length === 0) return null;
  return (
    <section
      className="border-t border-base-300 py-2 md:col-span-2 md:columns-2 md:gap-x-12"
      aria-label="Everything else it says"
    >
      {given.map(([label, words]) => (
        <div key={label} className="break-inside-avoid border-b border-base-300">
          <Line label={label}>{words}</Line>
        </div>
      ))}
    </section>
  );
}

/** What a sheet says besides its figures, in words; null where it says nothing. */
function detailsOf(body: SheetBody, units: UnitChoice): [string, string | null | undefined][] {
  const yes = (value: boolean | undefined, words: string, not?: string) =>
    value === undefined ? null : value ? words : (not ?? null);
  const months = (n: number | undefined) => (n === undefined ? null : `${n} months`);
  const { antifouling: af } = body;
  const film = (m: number | undefined) => (m === undefined ? null : formatQuantity('film', m, units));
  return [
    ['Chemistry', body.chemistry && CHEMISTRY_WORDS[body.chemistry]],
    ['Maker’s revision', [body.makerRevision, body.issuedOn].filter(Boolean).join(', ') || null],
    [
      'Sold in',
      body.soldIn === 'aerosol'
        ? `aerosol cans${body.canCoversM2 ? `, each covers ${formatQuantity('area', body.canCoversM2, units)}` : ''}`
        : body.soldIn && 'tins',
    ],
    [
      'Put on by',
      body.methods
        ?.map((m) =>
          [METHOD_WORDS[m.method].toLowerCase(), film(m.dftMaxMicron) && `to ${film(m.dftMaxMicron)}`]
            .filter(Boolean)
            .join(' '),
        )
        .join(', '),
    ],
    ['Gloss', body.gloss && GLOSS_WORDS[body.gloss]],
    ['Hides in', body.hidingCoats === undefined ? null : `${counted(body.hidingCoats, 'coat')}`],
    ['Under water', yes(body.immersible, 'may be immersed', 'must not be immersed')],
    ['In sunlight', yes(body.uvResistant, 'stands it', 'chalks or weathers')],
    ['Drinking water', yes(body.potable, 'certified, as its certificate says')],
    ['Holds uncoated', months(body.holdingMonths)],
    [
      'Antifouling',
      af &&
        [
          af.type && ANTIFOULING_WORDS[af.type].toLowerCase(),
          af.waters?.map((w) => WATERS_WORDS[w].toLowerCase()).join(', '),
          af.years !== undefined && `${af.years} years`,
          af.dryOutDays !== undefined && `dry for ${af.dryOutDays} days at most`,
        ]
          .filter(Boolean)
          .join('; '),
    ],
    ['Copper', yes(body.copper, 'holds copper', 'free of copper')],
    [
      'Surface',
      [
        body.cleanliness,
        body.surfaceGrit && `grit ${body.surfaceGrit}`,
        body.profileMinMicron !== undefined &&
          `profile ${film(body.profileMinMicron)} to ${film(body.profileMaxMicron) ?? '?'}`,
        body.moistureMax !== undefined && `moisture to ${shareWords(body.moistureMax)}`,
      ]
        .filter(Boolean)
        .join('; ') || null,
    ],
    ['Between coats', yes(body.neverAbrade, 'never to be abraded')],
    ['Solvent', yes(body.strongSolvent, 'strong', 'mild')],
    ...mixingOf(body),
    ['Keeps closed', months(body.shelfClosedMonths)],
    ['Keeps opened', months(body.shelfOpenMonths)],
    [
      'Hazards',
      [
        yes(body.isocyanate, 'isocyanates'),
        yes(body.biocide, 'biocide'),
        body.flashPointClass,
        body.vocGPerL !== undefined && `VOC ${body.vocGPerL} g/L`,
      ]
        .filter(Boolean)
        .join('; ') || null,
    ],
  ];
}

/** What it says of mixing besides its ratio. */
function mixingOf(body: SheetBody): [string, string | null | undefined][] {
  return [
    ['Tolerance of the ratio', body.ratioTolerance === undefined ? null : shareWords(body.ratioTolerance)],
    ['Other ratios', body.useRatios?.map((u) => `${u.ratio.join(' : ')} for ${u.use} (${u.source})`).join('; ')],
    [
      'Additives',
      body.additives
        ?.map((a) => `${a.name}, ${ADDITIVE_WORDS[a.kind]}: pot life × ${a.potFactor}, drying × ${a.windowFactor}`)
        .join('; '),
    ],
    ['Wet edge', body.wetEdgeMin === undefined ? null : `${body.wetEdgeMin} min at 20 °C`],
  ];
}
