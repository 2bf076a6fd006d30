import { useRef, useState } from 'react';
import { QUANTITIES, shownUnits, type QuantityName } from '#core/units/quantities';
import { systemFor } from '#core/units/format';
import { call } from '../../data/api';
import { changeSettings, setQuantitySystem, useSettings } from '../../data/settings';
import { queryClient } from '../../data/store';
import { Choice, FormProblem, SelectField, TextField } from '../../parts/Field';

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
  const { units, theme, painter } = useSettings();
  return (
    <div className="mx-auto grid w-full max-w-5xl gap-x-12 gap-y-8 px-3 py-4 sm:px-5 md:grid-cols-2">
      <section className="flex flex-col gap-4" aria-labelledby="s-device">
        <h1 id="s-device" className="ruled pb-1">
          This device
        </h1>
        <TextField label="Painter" value={painter} onChange={(e) => changeSettings({ painter: e.target.value })} hint="Stands on everything that is logged from here." />
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
        <details>
          <summary className="link-row cursor-pointer underline underline-offset-4">Mix them by quantity</summary>
          <div className="grid grid-cols-2 gap-3">
            {MIXABLE.map(([quantity, label]) => (
              <SelectField
                key={quantity}
                label={label}
                value={systemFor(units, quantity)}
                options={(['metric', 'us'] as const).map((system) => [system, shownUnits(quantity, system).map((u) => u.symbol).join(', ')] as const)}
                onPick={(system) => setQuantitySystem(quantity, system)}
              />
            ))}
          </div>
          <p className="mt-1 text-sm quiet">Figures typed with a unit are read in any case: {QUANTITIES.volume.units.map((u) => u.symbol).join(', ')}.</p>
        </details>
      </section>
      <Backup />
    </div>
  );
}

function Backup() {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [state, setState] = useState<{ problem: string | null; done: string | null; busy: boolean }>({ problem: null, done: null, busy: false });
  const restore = async () => {
    if (!file) return;
    setState({ problem: null, done: null, busy: true });
    try {
      const { rows } = await call<{ rows: number }>('POST', '/restore', file);
      await queryClient.invalidateQueries();
      setState({ problem: null, done: `Restored: ${rows} rows. The yard is as it was in that backup.`, busy: false });
      setFile(null);
      if (input.current) input.current.value = '';
    } catch (error) {
      setState({ problem: (error as Error).message, done: null, busy: false });
    }
  };
  return (
    <section id="backup" className="flex flex-col gap-4" aria-labelledby="s-backup">
      <h2 id="s-backup" className="ruled pb-1 text-[1.75rem]">
        Back up and restore
      </h2>
      <p>One file holds everything: boats, zones, sheets, every entry of the log. Keep it somewhere else than this computer.</p>
      <a className="btn btn-primary self-start" href="/api/backup" download>
        Back up
      </a>
      <div className="flex flex-col gap-3 border-t border-base-300 pt-3">
        <label className="lab flex flex-col gap-1">
          Restore from a backup
          <input
            ref={input}
            type="file"
            accept=".gz,.json,.jsonl,application/gzip,application/json"
            className="file-input h-11 w-full text-base"
            onChange={(e) => {
              setFile(e.target.files?.[0] ?? null);
              setState({ problem: null, done: null, busy: false });
            }}
          />
        </label>
        {file && (
          <div className="border-l-4 border-warning bg-base-200 px-3 py-2">
            <p>This puts {file.name} in place of everything that is here now. Back up first if in doubt.</p>
            <button type="button" className="btn mt-2" disabled={state.busy} onClick={() => void restore()}>
              {state.busy ? 'Restoring…' : 'Replace everything with this backup'}
            </button>
          </div>
        )}
        <FormProblem message={state.problem} />
        {state.done && <p role="status">{state.done}</p>}
      </div>
    </section>
  );
}
