import { QUANTITIES, shownUnits, type QuantityName } from '#core/units/quantities';
import { systemFor } from '#core/units/format';
import { changeSettings, setQuantitySystem, useSettings } from '../../data/settings';
import { Choice, SelectField, TextField } from '../../parts/Field';
import { useYard } from '../../data/store';
import { ToDemo } from '../../parts/ToDemo';
import { BackupSection } from './BackupSection';

const MIXABLE: readonly (readonly [QuantityName, string])[] = [
  ['length', 'Lengths'],
  ['area', 'Areas'],
  ['volume', 'Volumes'],
  ['mass', 'Weights'],
  ['film', 'Film thickness'],
  ['temperature', 'Temperatures'],
  ['temperatureDifference', 'Spread'],
  ['spreadingRate', 'Coverage'],
  ['windSpeed', 'Wind'],
];

export function SettingsPlace() {
  const { units, theme, painter, keys, words } = useSettings();
  const { data: yard } = useYard();
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-8 px-3 py-4 sm:px-5 md:grid-cols-2">
      <section className="flex flex-col gap-4" aria-labelledby="s-device">
        <h1 id="s-device" className="ruled pb-1">
          This device
        </h1>
        <TextField
          label="Painter"
          value={painter}
          onChange={(e) => changeSettings({ painter: e.target.value })}
          hint="Stands on everything that is logged from here."
        />
        <Choice
          label="Theme"
          options={[
            ['chalk', 'Light, for the yard'],
            ['shed', 'Dark, for the shed'],
          ]}
          value={theme}
          onPick={(t) => changeSettings({ theme: t })}
        />
        <Choice
          label="Units"
          options={[
            ['metric', 'Metric'],
            ['us', 'US'],
          ]}
          value={units.system}
          onPick={(system) => changeSettings({ units: { system } })}
        />
        <MixedUnits />
        <Choice
          label="Words"
          options={[
            ['asUnits', 'as the units'],
            ['us', 'draft, fiberglass'],
            ['uk', 'draught, GRP'],
          ]}
          value={words ?? 'asUnits'}
          onPick={(w) => changeSettings({ words: w === 'asUnits' ? null : w })}
        />
        <label className="link-row gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={keys}
            onChange={(e) => changeSettings({ keys: e.target.checked })}
          />
          Single keys lead to places (? shows them)
        </label>
      </section>
      <div className="flex min-w-0 flex-col gap-8">
        <BackupSection />
        {yard?.demo === false && <DemoYard />}
      </div>
    </div>
  );
}

/** Some quantities in other units than the rest. */
function MixedUnits() {
  const { units } = useSettings();
  return (
    <details>
      <summary className="link-row cursor-pointer underline underline-offset-4">Mix them by quantity</summary>
      <div className="grid grid-cols-2 gap-3">
        {MIXABLE.map(([quantity, label]) => (
          <SelectField
            key={quantity}
            label={label}
            value={systemFor(units, quantity)}
            options={(['metric', 'us'] as const).map(
              (system) =>
                [
                  system,
                  shownUnits(quantity, system)
                    .map((u) => u.symbol)
                    .join(', '),
                ] as const,
            )}
            onPick={(system) => setQuantitySystem(quantity, system)}
          />
        ))}
      </div>
      <p className="mt-1 text-sm quiet">
        Figures typed with a unit are read in any case: {QUANTITIES.volume.units.map((u) => u.symbol).join(', ')}.
      </p>
    </details>
  );
}

function DemoYard() {
  return (
    <section aria-labelledby="s-demo">
      <h2 id="s-demo" className="ruled pb-1">
        Demo yard
      </h2>
      <p className="py-2">Made-up boats in the middle of their coats. Nothing done there touches this yard.</p>
      <ToDemo />
    </section>
  );
}
