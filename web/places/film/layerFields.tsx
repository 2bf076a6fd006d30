import { deadVolumeOfProfile } from '#core/film/deadVolume';
import { ABRADE_FOR, type PrimerFor } from '#core/model/layer';
import { THINNER_FAMILIES } from '#core/model/sheet';
import { formatQuantity } from '#core/units/format';
import type { useCoatDraft, coatForm } from './useCoatDraft';
import { Choice, QuantityField, SelectField, TextField } from '../../parts/Field';
import { ABRADE_FOR_WORDS, PRIMER_FOR_WORDS, THINNER_WORDS } from '../../parts/choiceWords';
import { shareWords } from '../../parts/words';

/** Film, thinner, loss and what the ground takes. */
export function FilmFields({
  edit,
  form,
  first,
}: {
  edit: ReturnType<typeof useCoatDraft>;
  form: ReturnType<typeof coatForm>;
  first: boolean;
}) {
  return (
    <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <QuantityField
        label="Dry film"
        quantity="film"
        value={edit.draft.dftMicron}
        onValue={(v) => form.set({ dftMicron: v ?? Number.NaN })}
        hint={`Sheet: ${formatQuantity('film', form.sheet.dftMicron, edit.units)}`}
      />
      <QuantityField
        label={`Thinner, share of ${form.sheet.thinner?.of === 'base' ? 'the base' : 'the mix'}`}
        quantity="percent"
        value={edit.draft.thinnerShare}
        onValue={(v) => form.set({ thinnerShare: v ?? 0 })}
        hint={form.thinnerMost > 0 ? `At most ${shareWords(form.thinnerMost)}` : undefined}
      />
      <QuantityField
        label="Loss"
        quantity="percent"
        value={edit.draft.loss}
        onValue={(v) => form.set({ loss: v ?? 0 })}
        hint="Roller 10, brush 5, airless 25: common practice"
      />
      {edit.draft.thinnerShare > 0 && (
        <SelectField
          label="Thinner in the pot"
          options={[['', 'the sheet’s own'], ...THINNER_FAMILIES.map((f) => [f, THINNER_WORDS[f]] as const)]}
          value={edit.draft.thinnerFamily ?? ''}
          onPick={(f) => form.set({ thinnerFamily: f === '' ? undefined : f })}
        />
      )}
      <QuantityField
        label="Dead volume per m²"
        quantity="volume"
        value={edit.draft.deadVolumeLPerM2}
        onValue={(v) => form.set({ deadVolumeLPerM2: v ?? 0 })}
        hint={`A blasted ${formatQuantity('film', 75, edit.units)} profile takes ${formatQuantity('volume', 0.05, edit.units)}: from memory`}
      />
      {first && (
        <QuantityField
          label="or by its blast profile"
          quantity="film"
          value={edit.profile}
          onValue={(v) => (
            edit.setProfile(v),
            v !== null &&
              v >= 0 &&
              form.set({ deadVolumeLPerM2: Number(deadVolumeOfProfile({ profileMicron: v }).toFixed(4)) })
          )}
          hint="Sets the dead volume, from memory"
        />
      )}
      <QuantityField
        label="Soaks in besides"
        quantity="percent"
        value={edit.draft.absorption ?? null}
        onValue={(v) => form.set({ absorption: v ?? undefined })}
        hint="Bare timber 15 to 30, over grit more than 100: common practice"
      />
    </div>
  );
}

/** What it goes on, and what is done before. */
export function BondFields({
  first,
  edit,
  form,
}: {
  first: boolean;
  edit: ReturnType<typeof useCoatDraft>;
  form: ReturnType<typeof coatForm>;
}) {
  return (
    <fieldset className="flex flex-wrap items-end gap-x-5 gap-y-2 border-t border-base-300 pt-2">
      <legend className="lab">{first ? 'The surface beneath' : 'The coat beneath'}</legend>
      <Choice
        label="It goes on"
        options={[
          ['open', 'not decided'],
          ...(first ? [] : [['tackWindow', 'as is, in the tack window'] as const]),
          ['abrade', 'over abrading'],
        ]}
        value={edit.draft.prep ?? 'open'}
        onPick={(prep) =>
          form.set(
            prep === 'abrade'
              ? { prep, abradeFor: edit.draft.abradeFor ?? 'bond', grit: edit.draft.grit ?? form.sheet.surfaceGrit }
              : { prep: prep === 'open' ? undefined : 'tackWindow', abradeFor: undefined, grit: undefined },
          )
        }
      />
      {edit.draft.prep === 'abrade' && (
        <>
          <SelectField
            label="Abraded"
            options={ABRADE_FOR.map((a) => [a, ABRADE_FOR_WORDS[a]] as const)}
            value={edit.draft.abradeFor ?? 'bond'}
            onPick={(abradeFor) => form.set({ abradeFor })}
          />
          <div className="w-24">
            <TextField
              label="Grit"
              inputMode="numeric"
              value={edit.draft.grit === undefined || Number.isNaN(edit.draft.grit) ? '' : String(edit.draft.grit)}
              onChange={(e) => form.set({ grit: e.target.value.trim() === '' ? undefined : Number(e.target.value) })}
            />
          </div>
        </>
      )}
      {form.tick('wipe', 'wipe')}
      {form.tick('mask', 'mask')}
      {form.tick('stripe', 'stripe the edges first')}
      {edit.draft.method === 'roller' && form.tick('tip', 'tip off with a brush')}
    </fieldset>
  );
}

/** Its colour, where a primer is put, and how long it is to hold. */
export function CoatColourFields({
  form,
  edit,
}: {
  form: ReturnType<typeof coatForm>;
  edit: ReturnType<typeof useCoatDraft>;
}) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      {form.sheet.colours.map((c) => (
        <button
          key={c.name}
          type="button"
          className={`btn ${c.hex === edit.draft.colourHex ? 'btn-primary' : ''}`}
          aria-pressed={c.hex === edit.draft.colourHex}
          onClick={() => form.set({ colour: c.name, colourHex: c.hex })}
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
        <TextField
          label="Colour, by name"
          value={edit.draft.colour}
          onChange={(e) => form.set({ colour: e.target.value })}
        />
      </div>
      <label className="lab flex flex-col gap-1">
        Shown as
        <input
          type="color"
          className="h-11 w-14"
          value={edit.draft.colourHex}
          onChange={(e) => form.set({ colourHex: e.target.value })}
        />
      </label>
      {(form.sheet.kind === 'primer' || form.sheet.kind === 'undercoat' || form.sheet.kind === 'filler') && (
        <Choice
          label="It is there"
          options={Object.entries(PRIMER_FOR_WORDS) as [PrimerFor, string][]}
          value={edit.draft.primerFor ?? (form.sheet.kind === 'filler' ? 'filling' : 'adhesion')}
          onPick={(primerFor) => form.set({ primerFor })}
        />
      )}
      <div className="w-44">
        <TextField
          label="Is to hold, months"
          inputMode="decimal"
          value={
            edit.draft.holdMonths === undefined || Number.isNaN(edit.draft.holdMonths)
              ? ''
              : String(edit.draft.holdMonths)
          }
          onChange={(e) =>
            form.set({
              holdMonths: e.target.value.trim() === '' ? undefined : Number(e.target.value.replace(',', '.')),
            })
          }
          hint="Left over winter, before the next coat"
        />
      </div>
    </div>
  );
}
