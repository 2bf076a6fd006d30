import { EXPOSURES, SUBSTRATES } from '#core/model/surface';
import type { BondSchool } from '#core/model/buildUp';
import type { NamedBuildUpRow } from '#contracts/rows/system';
import { Choice, QuantityField, SelectField, TextField } from '../../parts/Field';
import { BOND_WORDS, EXPOSURE_WORDS, SUBSTRATE_WORDS } from '../../parts/choiceWords';

/** What it is for. */
export function About({ now, set }: { now: NamedBuildUpRow; set: (change: Partial<NamedBuildUpRow>) => void }) {
  return (
    <section className="flex flex-col gap-3" aria-labelledby="about">
      <h2 id="about" className="ruled pb-1">
        What it is for
      </h2>
      <TextField label="Name" value={now.name} onChange={(e) => set({ name: e.target.value })} />
      <fieldset>
        <legend className="lab">Substrates</legend>
        <div className="flex flex-wrap gap-x-5">
          {SUBSTRATES.map((s) => (
            <label key={s} className="link-row gap-2">
              <input
                type="checkbox"
                className="checkbox"
                checked={now.substrates.includes(s)}
                onChange={(e) =>
                  set({ substrates: e.target.checked ? [...now.substrates, s] : now.substrates.filter((x) => x !== s) })
                }
              />{' '}
              {SUBSTRATE_WORDS[s]}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap items-end gap-4">
        <SelectField
          label="Exposure"
          options={EXPOSURES.map((e) => [e, EXPOSURE_WORDS[e]] as const)}
          value={now.exposure}
          onPick={(exposure) => set({ exposure })}
        />
        <Choice
          label="School"
          options={Object.entries(BOND_WORDS) as [BondSchool, string][]}
          value={now.bond}
          onPick={(bond) => set({ bond })}
        />
        <div className="w-44">
          <QuantityField
            label="Film wanted in all"
            quantity="film"
            value={now.targetMicron}
            onValue={(targetMicron) => set({ targetMicron })}
            hint="Empty: the usual one"
          />
        </div>
      </div>
      <TextField label="Note" value={now.note} onChange={(e) => set({ note: e.target.value })} />
    </section>
  );
}
