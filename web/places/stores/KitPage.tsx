import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { filledL } from '#core/mix/fillHeights';
import type { Kit } from '#core/model/kit';
import type { YardRules } from '#contracts/rows/stores';
import { useStores } from '../../data/store';
import { useSubmit } from '../../data/useSubmit';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, QuantityField, TextField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { useLeaveGuard } from '../../parts/useLeaveGuard';

/** The yard's pots, pumps and syringes, and the step of its scale. */
export function KitPage() {
  const { stores } = useStores();
  if (!stores)
    return <div className="skeleton m-5 h-64 rounded-sm" role="status" aria-label="Loading the pots and pumps" />;
  return <KitForm rules={stores.rules} />;
}

const GRID = 'grid grid-cols-2 items-start gap-3 border-b border-base-300 py-2 sm:grid-cols-[2fr_1fr_1fr_1fr_auto]';

function KitForm({ rules }: { rules: YardRules }) {
  const [kit, setKit] = useState<Kit>(rules.kit);
  const { failure, theirs, sending, submit } = useSubmit();
  const changed = kit !== rules.kit;
  useLeaveGuard(changed && !sending);
  const problem = kitProblem(kit);
  const save = async () => {
    if (problem) return;
    await submit(
      { kind: 'rules', row: { ...rules, kit, version: theirs?.version ?? rules.version } },
      'Pots and pumps saved',
    );
  };
  return (
    <form
      className="mx-auto flex w-full max-w-4xl flex-col gap-4 px-3 py-4 sm:px-5"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <h1 className="ruled pb-2">Pots, pumps, syringes</h1>
      <p className="max-w-prose">
        Measure inside: across at the bottom, across at the rim, and how deep. Of a pump, ten strokes into a cup and a
        tenth of that; again whenever it was cleaned.
      </p>
      <Pots kit={kit} onKit={setKit} />
      <Pumps kit={kit} onKit={setKit} />
      <Syringes kit={kit} onKit={setKit} />
      <Choice
        label="The scale shows"
        options={[
          ['1', '1 g'],
          ['0.1', '0.1 g'],
        ]}
        value={kit.scaleStepG < 1 ? '0.1' : '1'}
        onPick={(step) => setKit({ ...kit, scaleStepG: Number(step) })}
      />
      <FormProblem message={failure?.message ?? (changed ? problem : null)} />
      <div className="flex flex-wrap gap-3">
        <button type="submit" className="btn btn-primary" disabled={!changed || sending || problem !== null}>
          {theirs ? 'Keep what stands here' : 'Save'}
        </button>
        <Link to="/stores" className="btn">
          To the stores
        </Link>
      </div>
    </form>
  );
}

interface Part {
  kit: Kit;
  onKit: (kit: Kit) => void;
}

const changedIn = <T extends { readonly id: string }>(list: readonly T[], id: string, change: Partial<T>): T[] =>
  list.map((item) => (item.id === id ? { ...item, ...change } : item));
const mmOf = (metres: number | null) => (metres === null ? Number.NaN : metres * 1000);

function Pots({ kit, onKit }: Part) {
  const set = (id: string, change: Partial<Kit['pots'][number]>) =>
    onKit({ ...kit, pots: changedIn(kit.pots, id, change) });
  return (
    <section aria-labelledby="pots">
      <h2 id="pots">Pots and tubs</h2>
      {kit.pots.map((p) => {
        const holds = attempt(() => filledL({ pot: p, heightMm: p.depthMm })).value;
        return (
          <div key={p.id} className={GRID}>
            <TextField
              label="Name"
              value={p.name}
              onChange={(e) => set(p.id, { name: e.target.value })}
              hint={holds === null ? undefined : <Holds litres={holds} />}
            />
            <QuantityField
              label="Bottom, inside"
              quantity="width"
              value={p.bottomMm / 1000}
              onValue={(v) => set(p.id, { bottomMm: mmOf(v) })}
            />
            <QuantityField
              label="Rim, inside"
              quantity="width"
              value={p.topMm / 1000}
              onValue={(v) => set(p.id, { topMm: mmOf(v) })}
            />
            <QuantityField
              label="Deep"
              quantity="width"
              value={p.depthMm / 1000}
              onValue={(v) => set(p.id, { depthMm: mmOf(v) })}
            />
            <Remove name={p.name} onRemove={() => onKit({ ...kit, pots: kit.pots.filter((x) => x.id !== p.id) })} />
          </div>
        );
      })}
      <Add
        what="Pot"
        onAdd={() =>
          onKit({ ...kit, pots: [...kit.pots, { id: uuid(), name: '', bottomMm: 150, topMm: 150, depthMm: 150 }] })
        }
      />
    </section>
  );
}

const Holds = ({ litres }: { litres: number }) => (
  <>
    holds <Fig quantity="volume" value={litres} />
  </>
);

function Pumps({ kit, onKit }: Part) {
  const set = (id: string, change: Partial<Kit['pumps'][number]>) =>
    onKit({ ...kit, pumps: changedIn(kit.pumps, id, change) });
  return (
    <section aria-labelledby="pumps">
      <h2 id="pumps">Pumps</h2>
      {kit.pumps.map((p) => (
        <div key={p.id} className={GRID}>
          <TextField label="Name" value={p.name} onChange={(e) => set(p.id, { name: e.target.value })} />
          <QuantityField
            label="A stroke gives"
            quantity="volume"
            inputMode="text"
            value={p.mlPerStroke / 1000}
            onValue={(v) => set(p.id, { mlPerStroke: mmOf(v) })}
            hint="30 ml"
          />
          <Remove name={p.name} onRemove={() => onKit({ ...kit, pumps: kit.pumps.filter((x) => x.id !== p.id) })} />
        </div>
      ))}
      <Add
        what="Pump"
        onAdd={() => onKit({ ...kit, pumps: [...kit.pumps, { id: uuid(), name: '', mlPerStroke: 30 }] })}
      />
    </section>
  );
}

function Syringes({ kit, onKit }: Part) {
  const set = (id: string, change: Partial<Kit['syringes'][number]>) =>
    onKit({ ...kit, syringes: changedIn(kit.syringes, id, change) });
  return (
    <section aria-labelledby="syringes">
      <h2 id="syringes">Syringes</h2>
      {kit.syringes.map((p) => (
        <div key={p.id} className={GRID}>
          <TextField label="Name" value={p.name} onChange={(e) => set(p.id, { name: e.target.value })} />
          <QuantityField
            label="Holds"
            quantity="volume"
            inputMode="text"
            value={p.ml / 1000}
            onValue={(v) => set(p.id, { ml: mmOf(v) })}
          />
          <Remove
            name={p.name}
            onRemove={() => onKit({ ...kit, syringes: kit.syringes.filter((x) => x.id !== p.id) })}
          />
        </div>
      ))}
      <Add
        what="Syringe"
        onAdd={() => onKit({ ...kit, syringes: [...kit.syringes, { id: uuid(), name: '', ml: 60 }] })}
      />
    </section>
  );
}

function Remove({ name, onRemove }: { name: string; onRemove: () => void }) {
  return (
    <button
      type="button"
      className="btn btn-ghost mt-6 self-start"
      aria-label={`Remove ${name || 'this one'}`}
      onClick={onRemove}
    >
      <Trash2 size={18} aria-hidden="true" />
    </button>
  );
}

function Add({ what, onAdd }: { what: string; onAdd: () => void }) {
  return (
    <button type="button" className="btn mt-2" onClick={onAdd}>
      <Plus size={16} aria-hidden="true" /> {what}
    </button>
  );
}

/** Why it cannot be kept as it is typed; null where it can. */
function kitProblem({ pots, pumps, syringes }: Kit): string | null {
  const all = [...pots, ...pumps, ...syringes];
  if (all.some((t) => t.name.trim() === '')) return 'Give each a name, so that it can be chosen.';
  const figures = [
    ...pots.flatMap((p) => [p.bottomMm, p.topMm, p.depthMm]),
    ...pumps.map((p) => p.mlPerStroke),
    ...syringes.map((s) => s.ml),
  ];
  return figures.every((f) => Number.isFinite(f) && f > 0) ? null : 'Type every measure, more than zero.';
}
