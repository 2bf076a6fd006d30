import { useState } from 'react';
import { deadVolumeOfProfile } from '#core/film/deadVolume';
import { ABRADE_FOR, type Layer, type PrimerFor } from '#core/model/layer';
import { layerQuantities, layerWorking, type AreaOf } from '#core/film/layer';
import { USUAL_LOSS } from '#core/film/spreading';
import { THINNER_FAMILIES, type SheetBody, type SheetRevision } from '#core/model/sheet';
import { onProduct } from '#core/system/system';
import { largestFilm, largestThinner } from '#core/system/stack';
import { formatQuantity } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { useSheets } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { ABRADE_FOR_WORDS, PRIMER_FOR_WORDS, THINNER_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS, SHEET_KIND_WORDS, shareWords } from '../../parts/words';
import { Why } from '../../parts/Why';

const METHODS = Object.entries(METHOD_WORDS) as [Layer['method'], string][];

/** The figures of one coat, everything decided of it, and what it takes. What the sheet does not allow is said before it is saved. */
export function EditLayer({
  revision,
  layer,
  first,
  locked,
  area,
  onSave,
  onRemove,
  onRepeat,
  onBack,
}: {
  revision: SheetRevision | undefined;
  layer: Layer;
  /** Nothing of this build-up lies beneath it. */
  first: boolean;
  locked: boolean;
  /** Of the zone it goes onto; null where it is for none. */
  area: AreaOf | null;
  onSave: (layer: Layer) => void;
  onRemove: () => void;
  onRepeat: () => void;
  onBack: () => void;
}) {
  const { units } = useSettings();
  const { data: sheets } = useSheets();
  const [draft, setDraft] = useState(layer);
  const [profile, setProfile] = useState<number | null>(null);
  // A film dragged in the section meanwhile shows here.
  const [dragged, setDragged] = useState(layer.dftMicron);
  if (dragged !== layer.dftMicron) {
    setDragged(layer.dftMicron);
    setDraft({ ...draft, dftMicron: layer.dftMicron });
  }
  const picked = sheets?.find((s) => s.current.id === draft.sheetRevisionId)?.current ?? revision;
  if (!picked)
    return <FormProblem message="The sheet of this coat is not here. Take the coat out, or bring the sheet back." />;
  const sheet = picked.body;
  const set = (change: Partial<Layer>) => setDraft({ ...draft, ...change });
  const grit = draft.grit;
  const bad =
    [
      draft.dftMicron,
      draft.thinnerShare,
      draft.loss,
      draft.deadVolumeLPerM2,
      draft.absorption ?? 0,
      grit ?? 120,
      draft.holdMonths ?? 0,
    ].some((v) => Number.isNaN(v)) || draft.dftMicron <= 0;
  const others = (sheets ?? []).filter((s) => !s.withdrawn || s.current.id === picked.id);
  const most = largestFilm(sheet, draft.method);
  const thinnerMost = largestThinner(sheet, draft.method) ?? 0;
  const warnings = [
    most !== null && draft.dftMicron > most
      ? 'Thicker than the sheet’s largest dry film: solvent is trapped and it cracks. Two thinner coats are better.'
      : null,
    draft.thinnerShare > thinnerMost
      ? thinnerMost > 0
        ? `More thinner than the sheet’s ${shareWords(thinnerMost)}: it sags and loses film.`
        : 'The sheet gives no thinner for this product.'
      : null,
  ].filter((w) => w !== null);
  const tick = (key: 'wipe' | 'mask' | 'stripe' | 'tip', words: string) => (
    <label className="link-row gap-2">
      <input
        type="checkbox"
        className="checkbox"
        checked={draft[key] ?? false}
        onChange={(e) => set({ [key]: e.target.checked || undefined })}
      />{' '}
      {words}
    </label>
  );
  return (
    <section className="flex flex-col gap-3" aria-labelledby="edit-layer">
      <h2 id="edit-layer" className="ruled pb-1">
        {sheet.name}
      </h2>
      {area && <Figures area={area} layer={draft} sheet={sheet} />}
      {locked && <p className="quiet">A coat of it is on: changes here show in the plan, not in the record.</p>}
      {!locked && (
        <SelectField
          label="Product"
          options={productOptions(others, picked)}
          value={picked.id}
          onPick={(id) => setDraft(onProduct(draft, others.find((s) => s.current.id === id)?.current ?? picked))}
        />
      )}
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <QuantityField
          label="Dry film"
          quantity="film"
          value={draft.dftMicron}
          onValue={(v) => set({ dftMicron: v ?? Number.NaN })}
          hint={`Sheet: ${formatQuantity('film', sheet.dftMicron, units)}`}
        />
        <QuantityField
          label={`Thinner, share of ${sheet.thinner?.of === 'base' ? 'the base' : 'the mix'}`}
          quantity="percent"
          value={draft.thinnerShare}
          onValue={(v) => set({ thinnerShare: v ?? 0 })}
          hint={thinnerMost > 0 ? `At most ${shareWords(thinnerMost)}` : undefined}
        />
        <QuantityField
          label="Loss"
          quantity="percent"
          value={draft.loss}
          onValue={(v) => set({ loss: v ?? 0 })}
          hint="Roller 10, brush 5, airless 25: common practice"
        />
        {draft.thinnerShare > 0 && (
          <SelectField
            label="Thinner in the pot"
            options={[['', 'the sheet’s own'], ...THINNER_FAMILIES.map((f) => [f, THINNER_WORDS[f]] as const)]}
            value={draft.thinnerFamily ?? ''}
            onPick={(f) => set({ thinnerFamily: f === '' ? undefined : f })}
          />
        )}
        <QuantityField
          label="Dead volume per m²"
          quantity="volume"
          value={draft.deadVolumeLPerM2}
          onValue={(v) => set({ deadVolumeLPerM2: v ?? 0 })}
          hint={`A blasted ${formatQuantity('film', 75, units)} profile takes ${formatQuantity('volume', 0.05, units)}: from memory`}
        />
        {first && (
          <QuantityField
            label="or by its blast profile"
            quantity="film"
            value={profile}
            onValue={(v) => (
              setProfile(v),
              v !== null &&
                v >= 0 &&
                set({ deadVolumeLPerM2: Number(deadVolumeOfProfile({ profileMicron: v }).toFixed(4)) })
            )}
            hint="Sets the dead volume, from memory"
          />
        )}
        <QuantityField
          label="Soaks in besides"
          quantity="percent"
          value={draft.absorption ?? null}
          onValue={(v) => set({ absorption: v ?? undefined })}
          hint="Bare timber 15 to 30, over grit more than 100: common practice"
        />
      </div>
      <Choice
        label="Put on by"
        options={METHODS}
        value={draft.method}
        onPick={(method) =>
          set({
            method,
            tip: method === 'roller' ? draft.tip : undefined,
            ...(draft.loss === USUAL_LOSS[draft.method] ? { loss: USUAL_LOSS[method] } : {}),
          })
        }
      />
      <fieldset className="flex flex-wrap items-end gap-x-5 gap-y-2 border-t border-base-300 pt-2">
        <legend className="lab">{first ? 'The surface beneath' : 'The coat beneath'}</legend>
        <Choice
          label="It goes on"
          options={[
            ['open', 'not decided'],
            ...(first ? [] : [['tackWindow', 'as is, in the tack window'] as const]),
            ['abrade', 'over abrading'],
          ]}
          value={draft.prep ?? 'open'}
          onPick={(prep) =>
            set(
              prep === 'abrade'
                ? { prep, abradeFor: draft.abradeFor ?? 'bond', grit: draft.grit ?? sheet.surfaceGrit }
                : { prep: prep === 'open' ? undefined : 'tackWindow', abradeFor: undefined, grit: undefined },
            )
          }
        />
        {draft.prep === 'abrade' && (
          <>
            <SelectField
              label="Abraded"
              options={ABRADE_FOR.map((a) => [a, ABRADE_FOR_WORDS[a]] as const)}
              value={draft.abradeFor ?? 'bond'}
              onPick={(abradeFor) => set({ abradeFor })}
            />
            <div className="w-24">
              <TextField
                label="Grit"
                inputMode="numeric"
                value={draft.grit === undefined || Number.isNaN(draft.grit) ? '' : String(draft.grit)}
                onChange={(e) => set({ grit: e.target.value.trim() === '' ? undefined : Number(e.target.value) })}
              />
            </div>
          </>
        )}
        {tick('wipe', 'wipe')}
        {tick('mask', 'mask')}
        {tick('stripe', 'stripe the edges first')}
        {draft.method === 'roller' && tick('tip', 'tip off with a brush')}
      </fieldset>
      <div className="flex flex-wrap items-end gap-3">
        {sheet.colours.map((c) => (
          <button
            key={c.name}
            type="button"
            className={`btn ${c.hex === draft.colourHex ? 'btn-primary' : ''}`}
            aria-pressed={c.hex === draft.colourHex}
            onClick={() => set({ colour: c.name, colourHex: c.hex })}
          >
            <span
              className="inline-block h-5 w-5 border border-current"
              style={{ background: c.hex }}
              aria-hidden="true"
            />{' '}
            {c.name}
          </button>
        ))}
        <div className="w-40">
          <TextField label="Colour, by name" value={draft.colour} onChange={(e) => set({ colour: e.target.value })} />
        </div>
        <label className="lab flex flex-col gap-1">
          Shown as
          <input
            type="color"
            className="h-11 w-14"
            value={draft.colourHex}
            onChange={(e) => set({ colourHex: e.target.value })}
          />
        </label>
        {(sheet.kind === 'primer' || sheet.kind === 'undercoat' || sheet.kind === 'filler') && (
          <Choice
            label="It is there"
            options={Object.entries(PRIMER_FOR_WORDS) as [PrimerFor, string][]}
            value={draft.primerFor ?? (sheet.kind === 'filler' ? 'filling' : 'adhesion')}
            onPick={(primerFor) => set({ primerFor })}
          />
        )}
        <div className="w-44">
          <TextField
            label="Is to hold, months"
            inputMode="decimal"
            value={draft.holdMonths === undefined || Number.isNaN(draft.holdMonths) ? '' : String(draft.holdMonths)}
            onChange={(e) =>
              set({ holdMonths: e.target.value.trim() === '' ? undefined : Number(e.target.value.replace(',', '.')) })
            }
            hint="Left over winter, before the next coat"
          />
        </div>
      </div>
      {warnings.map((w) => (
        <p key={w} className="border-l-4 border-warning bg-base-200 px-3 py-1">
          {w}
        </p>
      ))}
      <FormProblem message={bad ? 'A figure is missing or cannot be read. Type it again.' : null} />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn" onClick={onRepeat}>
          One more of it
        </button>
        <button type="button" className="btn btn-ghost text-error" disabled={locked} onClick={onRemove}>
          Take out
        </button>
      </div>
      <div className="sticky bottom-[3.3rem] -mx-3 flex gap-3 border-t border-base-300 bg-base-100 px-3 py-2 lg:static lg:mx-0 lg:border-0 lg:px-0">
        <button type="button" className="btn btn-primary" disabled={bad} onClick={() => onSave(draft)}>
          Save coat
        </button>
        <button type="button" className="btn" onClick={onBack}>
          Back
        </button>
      </div>
    </section>
  );
}

/** What the coat takes, live. */
function Figures({ area, layer, sheet }: { area: AreaOf; layer: Layer; sheet: SheetBody }) {
  const { areaM2, areaShare } = area;
  const coat = { areaM2, areaShare, layer, sheet };
  const q = attempt(() => layerQuantities(coat)).value;
  if (!q) return null;
  return (
    <div>
      <p className="flex flex-wrap items-baseline gap-x-5 gap-y-0.5">
        <span>
          comb for <Fig quantity="film" value={q.wetMicron} className="text-xl" /> wet
        </span>
        <span>
          dries to <Fig quantity="film" value={layer.dftMicron} />
        </span>
        <span>
          covers <Fig quantity="spreadingRate" value={q.spreadingRateM2PerL} />
        </span>
        <span>
          takes <Fig quantity="volume" value={q.litres.likely} approx className="text-lg" />{' '}
          <span className="narrow quiet">
            (<Fig quantity="volume" value={q.litres.low} /> to <Fig quantity="volume" value={q.litres.high} />)
          </span>
        </span>
      </p>
      <div className="flex flex-wrap items-baseline gap-x-5 text-[0.95rem]">
        {q.parts.length > 1 &&
          q.parts.map((p) => (
            <span key={p.name} className="quiet">
              {p.name} <Fig quantity="volume" value={p.litres} />
            </span>
          ))}
        {q.thinnerL > 0 && (
          <span className="quiet">
            thinner <Fig quantity="volume" value={q.thinnerL} />
          </span>
        )}
        <Why working={layerWorking(coat)} />
      </div>
    </div>
  );
}

function productOptions(others: readonly { current: SheetRevision }[], picked: SheetRevision): [string, string][] {
  const row = (r: SheetRevision): [string, string] => [
    r.id,
    `${r.body.name} — ${SHEET_KIND_WORDS[r.body.kind].toLowerCase()}`,
  ];
  const list = others.map((s) => row(s.current));
  return list.some(([id]) => id === picked.id) ? list : [row(picked), ...list];
}
