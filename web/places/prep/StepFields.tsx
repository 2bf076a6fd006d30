import { useState } from 'react';
import { concentrateL } from '#core/mix/concentrate';
import { ABRADE_FOR } from '#core/model/layer';
import { FAIRING_FOUND, type FairingFound, type PreparedBody } from '#core/model/prep';
import { wets } from '#core/prep/surfaceClocks';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { ABRADE_FOR_WORDS } from '../../parts/choiceWords';
import { Choice, QuantityField, SelectField, TextField } from '../../parts/Field';
import { FOUND_WORDS } from '../../parts/prepWords';
import { Where } from './Where';

/** What can be said of a step, by its kind. */
export function StepFields({
  view,
  surface,
  body,
  set,
  back,
  onBack,
}: {
  view: BoatView;
  surface: SurfaceRow;
  body: PreparedBody;
  set: (change: Partial<PreparedBody>) => void;
  back: string;
  onBack: (id: string) => void;
}) {
  const { step } = body;
  const scratches = step === 'abrade' || step === 'block';
  const bares = step === 'blast' || step === 'grind' || step === 'weld';
  const places = step === 'fill' || step === 'inspect' || step === 'spotPrime' || step === 'grind' || step === 'weld';
  return (
    <>
      {scratches && <AbradeFields body={body} set={set} />}
      {wets(step) && <WashFields body={body} set={set} />}
      {step === 'blast' && (
        <div className="grid grid-cols-2 gap-3">
          <QuantityField
            label="Profile"
            quantity="film"
            value={body.profileMicron ?? null}
            onValue={(v) => set({ profileMicron: v ?? undefined })}
            hint="By replica tape"
          />
          <QuantityField
            label="Of it"
            quantity="area"
            value={body.areaM2 ?? null}
            onValue={(v) => set({ areaM2: v ?? undefined })}
            placeholder={surface.areaM2}
          />
        </div>
      )}
      {(bares || step === 'passivate') && (
        <TextField
          label="Holds, hours"
          inputMode="decimal"
          value={body.holdsH === undefined || Number.isNaN(body.holdsH) ? '' : String(body.holdsH)}
          onChange={(e) =>
            set({ holdsH: e.target.value === '' ? undefined : Number(e.target.value.replace(',', '.')) })
          }
          hint={step === 'passivate' ? 'Empty: 72, or as its label says' : 'Empty: 4, or as the primer’s sheet says'}
        />
      )}
      {(step === 'weld' || step === 'grind') && (
        <BothFaces view={view} surface={surface} body={body} set={set} back={back} onBack={onBack} />
      )}
      {step === 'inspect' && !body.workId && (
        <FoundFields found={body.found ?? []} onFound={(found) => set({ found })} />
      )}
      {places && (
        <div>
          <p className="lab">Where: tap the drawing</p>
          <Where
            view={view}
            surface={surface}
            marks={body.drawnAt ? [body.drawnAt] : []}
            onPlace={(drawnAt) => set({ drawnAt })}
          />
        </div>
      )}
    </>
  );
}

type FieldsOf = { body: PreparedBody; set: (change: Partial<PreparedBody>) => void };

function AbradeFields({ body, set }: FieldsOf) {
  return (
    <div className="flex flex-wrap items-end gap-3">
      <TextField
        label="Grit"
        inputMode="numeric"
        value={body.grit === undefined || Number.isNaN(body.grit) ? '' : String(body.grit)}
        onChange={(e) => set({ grit: e.target.value === '' ? undefined : Number(e.target.value) })}
      />
      <Choice
        label="What for"
        options={ABRADE_FOR.map((f) => [f, ABRADE_FOR_WORDS[f]] as const)}
        value={body.abradeFor ?? 'bond'}
        onPick={(abradeFor) => set({ abradeFor })}
      />
    </div>
  );
}

/** Water, and concentrate in it: either is worked out from the ratio that was asked for. */
function WashFields({ body, set }: FieldsOf) {
  const { waterL, concentrateL: dose } = body;
  const [parts] = useState(waterL && dose ? waterL / dose : null);
  return (
    <div className="grid grid-cols-2 gap-3">
      <QuantityField
        label="Water"
        quantity="volume"
        value={waterL ?? null}
        onValue={(v) =>
          set({
            waterL: v ?? undefined,
            ...(parts && v !== null && v >= 0 ? { concentrateL: concentrateL({ waterL: v, parts }) } : {}),
          })
        }
      />
      {(dose !== undefined || body.step !== 'rinse') && (
        <QuantityField
          label={parts ? `Concentrate, 1 : ${Math.round(parts)}` : 'Concentrate'}
          quantity="volume"
          value={dose ?? null}
          onValue={(v) => set({ concentrateL: v ?? undefined })}
          hint="As its label says"
        />
      )}
    </div>
  );
}

function FoundFields({ found, onFound }: { found: readonly FairingFound[]; onFound: (found: FairingFound[]) => void }) {
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="What was found">
      {FAIRING_FOUND.map((f) => (
        <button
          key={f}
          type="button"
          className={`btn ${found.includes(f) ? 'btn-primary' : ''}`}
          aria-pressed={found.includes(f)}
          onClick={() =>
            onFound(
              f === 'fair'
                ? ['fair']
                : found.includes(f)
                  ? found.filter((x) => x !== f)
                  : [...found.filter((x) => x !== 'fair'), f],
            )
          }
        >
          {FOUND_WORDS[f]}
        </button>
      ))}
    </div>
  );
}

/** A weld or a grinder burns the coating on both faces: what lies behind gets a clock of its own. */
function BothFaces({
  view,
  surface,
  body,
  set,
  back,
  onBack,
}: FieldsOf & { view: BoatView; surface: SurfaceRow; back: string; onBack: (id: string) => void }) {
  const behind = view.surfaces.filter((s) => s.id !== surface.id).map((s) => [s.id, s.name] as const);
  return (
    <>
      <label className="link-row gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={body.bothFaces ?? false}
          onChange={(e) => set({ bothFaces: e.target.checked })}
        />
        It burnt the other face too
      </label>
      {body.bothFaces && (
        <SelectField
          label="What lies behind it"
          value={back}
          onPick={onBack}
          options={[['', 'nothing painted'], ...behind]}
          hint="Its own clock starts too"
        />
      )}
    </>
  );
}
