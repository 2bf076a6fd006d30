import { Choice, QuantityField, SelectField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { ZoneChecks } from '../../parts/ZoneChecks';
import { mixedKgPerL } from '#core/mix/batchToMix';
import { attempt } from '../../parts/attempt';
import { nextName } from '../../parts/zoneWords';
import type { MixProps, Mix } from './useMix';

/** What the batch is for, and how much of it. */
export function MixWishes({ stints, stint, onPick, mix }: MixProps & { mix: Mix }) {
  const { zoneOf } = mix;
  return (
    <>
      {stints.length > 1 && (
        <SelectField
          label="Product"
          value={stint.key}
          options={stints.map(
            (s) =>
              [
                s.key,
                `${s.name}${s.coat ? ', going on' : ''}: ${zonesWords(s.zones.map((z) => zoneOf(z.surfaceId).name))}`,
              ] as const,
          )}
          onPick={(key) => onPick([stints.find((s) => s.key === key)?.zones[0]?.surfaceId ?? ''])}
        />
      )}
      {/* Once mixed it is what it is: another batch has figures of its own. */}
      <fieldset disabled={mix.mixedId !== null} className="contents">
        <ZoneChecks legend="For" zones={stint.zones} chosen={mix.chosen} onPick={onPick}>
          {(z) => (
            <>
              <span className="flex-1">
                {zoneOf(z.surfaceId).name} <span className="quiet">{nextName(z)}</span>
              </span>
              <Fig
                quantity="area"
                value={zoneOf(z.surfaceId).areaM2}
                approx={zoneOf(z.surfaceId).area.method === 'dimensions'}
              />
            </>
          )}
        </ZoneChecks>
        <HowMuch mix={mix} />
      </fieldset>
    </>
  );
}

/** The first zone, and how many more: the others stand beneath as boxes to tick. */
const zonesWords = ([first, ...more]: readonly string[]): string =>
  more.length === 0 ? (first ?? '') : `${first} and ${more.length} more`;

function HowMuch({ mix }: { mix: Mix }) {
  const { sheet, wish, set } = mix;
  const perL = attempt(() => mixedKgPerL(sheet)).value ?? null;
  return (
    <>
      <Choice
        label="Size of the batch by"
        options={[
          ['area', 'Area to do'],
          ['litres', 'Volume'],
          ...(perL === null ? [] : [['mass', 'Weight'] as const]),
          ...(wish.cansL ? [['cans', 'What is left'] as const] : []),
        ]}
        value={wish.by}
        onPick={(by) =>
          set(
            by === 'litres' && wish.litres === null
              ? { by, litres: Math.round(mix.mixedL * 1000) / 1000 }
              : by === 'mass' && wish.massKg == null && perL !== null
                ? { by, massKg: Math.round(mix.mixedL * perL * 1000) / 1000 }
                : { by },
          )
        }
      />
      <div className="grid grid-cols-2 gap-3">
        <Amount mix={mix} />
        <QuantityField
          label={`Thinner, of ${sheet.thinner?.of === 'base' ? 'the base' : 'the mix'}`}
          quantity="percent"
          value={wish.thinner}
          onValue={(thinner) => set({ thinner })}
          hint={
            sheet.thinner
              ? `${sheet.thinner.name}, at most ${Math.round(sheet.thinner.maxShare * 100)} %`
              : 'The sheet gives none'
          }
        />
        <QuantityField
          label="Temperature of the paint"
          quantity="temperature"
          value={wish.potC}
          onValue={(potC) => set({ potC })}
          hint="Air now, until you measure"
        />
      </div>
      <UseOf mix={mix} />
      <Additives mix={mix} />
      {mix.overThinned && (
        <p className="border-l-4 border-warning bg-base-200 px-3 py-1">
          More thinner than the sheet allows: it sags and loses film.
        </p>
      )}
    </>
  );
}

/** The ratio that is mixed: the sheet's own, or one that it gives for a use. */
function UseOf({ mix }: { mix: Mix }) {
  const { sheet, wish, set } = mix;
  const uses = sheet.useRatios ?? [];
  if (uses.length === 0) return null;
  const picked = uses.find((u) => u.use === wish.use);
  return (
    <SelectField
      label="Ratio"
      value={wish.use ?? ''}
      options={[
        ['', `${sheet.parts.map((p) => p.ratio).join(' : ')}, the sheet’s own`],
        ...uses.map((u) => [u.use, `${u.ratio.join(' : ')} for ${u.use}`] as const),
      ]}
      onPick={(use) => set({ use: use === '' ? null : use })}
      hint={picked ? `By ${picked.source}` : undefined}
    />
  );
}

/** Additives that the sheet names, each with what it does. */
function Additives({ mix }: { mix: Mix }) {
  const { sheet, wish, set } = mix;
  return (sheet.additives ?? []).map((a) => {
    const share = wish.additives?.[a.name] ?? null;
    return (
      <QuantityField
        key={a.name}
        label={`${a.name}, ${a.kind}`}
        quantity="percent"
        value={share}
        onValue={(v) => set({ additives: { ...wish.additives, [a.name]: v ?? 0 } })}
        error={share !== null && share > a.maxShare ? 'More than its label allows.' : undefined}
        hint={`At most ${Math.round(a.maxShare * 1000) / 10} %; pot life × ${a.potFactor}, drying × ${a.windowFactor}`}
      />
    );
  });
}

/** How much, in what the size goes by. */
function Amount({ mix }: { mix: Mix }) {
  const { wish, set } = mix;
  if (wish.by === 'cans')
    return (
      <p className="self-end pb-2">
        <Fig quantity="volume" value={wish.cansL ?? 0} className="text-xl" /> can be mixed of what is on the shelf in
        date.
      </p>
    );
  return wish.by === 'area' ? (
    <QuantityField
      label="Area to do"
      quantity="area"
      value={wish.areaM2}
      onValue={(areaM2) => set({ areaM2 })}
      hint={mix.mixedForL > 0 ? 'Less what was mixed for it; type what is really left' : 'Less what is done already'}
    />
  ) : wish.by === 'mass' ? (
    <QuantityField
      label="Mixed paint by weight, without thinner"
      quantity="mass"
      value={wish.massKg ?? null}
      onValue={(massKg) => set({ massKg })}
      hint="450 g, 1 lb"
    />
  ) : (
    <QuantityField
      label="Mixed paint, without thinner"
      quantity="volume"
      value={wish.litres}
      onValue={(litres) => set({ litres })}
    />
  );
}
