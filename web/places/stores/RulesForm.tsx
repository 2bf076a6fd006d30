import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { PER, type ConsumableRule, type Per } from '#core/stores/consumables';
import type { Stores, YardRules } from '#contracts/rows/stores';
import { useSubmit } from '../../data/useSubmit';
import { Choice, FormProblem, TextField } from '../../parts/Field';
import { useLeaveGuard } from '../../parts/useLeaveGuard';
import { PER_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS } from '../../parts/words';

const CHANCES = [
  ['0.5', '5 in 10'],
  ['0.8', '8 in 10'],
  ['0.9', '9 in 10'],
  ['0.95', '19 in 20'],
  ['0.99', '99 in 100'],
] as const;

/** A rule as it is typed. */
interface Draft extends Omit<ConsumableRule, 'amount' | 'inPack' | 'priceMinor'> {
  amount: string;
  inPack: string;
  price: string;
}

const toDraft = (r: ConsumableRule): Draft => ({
  ...r,
  amount: String(r.amount),
  inPack: String(r.inPack),
  price: r.priceMinor === null ? '' : (r.priceMinor / 100).toFixed(2),
});
const number = (text: string) => (text.trim() === '' ? Number.NaN : Number(text.trim().replace(',', '.')));

function fromDraft({ price, ...d }: Draft): ConsumableRule {
  return {
    ...d,
    name: d.name.trim(),
    amount: number(d.amount),
    inPack: number(d.inPack),
    priceMinor: price.trim() === '' ? null : Math.round(number(price) * 100),
  };
}

function problemOf(rules: readonly ConsumableRule[]): string | null {
  for (const r of rules) {
    if (r.name === '') return 'A consumable has no name. Type it, or take the row out.';
    if (!(r.amount >= 0 && r.amount <= 1000)) return `${r.name}: type how many, as a number.`;
    if (!(Number.isInteger(r.inPack) && r.inPack >= 1)) return `${r.name}: a pack holds a whole number, one or more.`;
    if (r.priceMinor !== null && !(r.priceMinor >= 0))
      return `${r.name}: the price cannot be read. Type it, or leave it empty.`;
  }
  return null;
}

/** How sure buying is to be, and what of consumables goes with a coat: the yard's own rules. */
export function RulesForm({ stores }: { stores: Stores }) {
  const form = useRules(stores);

  return (
    <section id="rules" aria-labelledby="rules-title" className="mt-4">
      <h2 id="rules-title" className="ruled pb-1">
        Rules for buying
      </h2>
      <div className="py-3">
        <Choice
          label="Paint is to be enough"
          options={CHANCES}
          value={(CHANCES.find(([c]) => Number(c) === form.rules.chance)?.[0] ?? '') as (typeof CHANCES)[number][0]}
          onPick={(c) => void form.write({ chance: Number(c) }, 'Chance changed')}
        />
      </div>
      <YardFields key={form.rules.version} form={form} />
      <ConsumableTable form={form} />
      <FormProblem message={form.failure?.message ?? form.problem} />
      <RulesButtons form={form} />
      <p className="mt-1 text-sm quiet">The first figures are from memory: change them to what this yard uses.</p>
    </section>
  );
}

const timeOf = (min: number) => `${String(Math.floor(min / 60)).padStart(2, '0')}:${String(min % 60).padStart(2, '0')}`;
/** Minutes after midnight; midnight as an end is the end of the day. */
function minutesOf(text: string, end: boolean): number {
  const [h, m] = text.split(':').map(Number);
  const min = (h ?? Number.NaN) * 60 + (m ?? Number.NaN);
  return end && min === 0 ? 24 * 60 : min;
}

/** The working day, in which starts are offered, and the currency of all prices. */
function YardFields({ form }: { form: ReturnType<typeof useRules> }) {
  const { rules } = form;
  const [from, setFrom] = useState(timeOf(rules.workFromMin));
  const [to, setTo] = useState(timeOf(rules.workToMin % (24 * 60)));
  const [currency, setCurrency] = useState(rules.currency);
  const [problem, setProblem] = useState<string | null>(null);
  const save = () => {
    const workFromMin = minutesOf(from, false);
    const workToMin = minutesOf(to, true);
    const letters = currency.trim().toUpperCase();
    if (Number.isNaN(workFromMin + workToMin)) return setProblem('Type when the working day begins and ends.');
    if (workToMin <= workFromMin) return setProblem('The working day ends before it begins. Check the two times.');
    if (!/^[A-Z]{3}$/.test(letters))
      return setProblem('Type the currency as its three letters, for example EUR, GBP or USD.');
    setProblem(null);
    if (workFromMin !== rules.workFromMin || workToMin !== rules.workToMin || letters !== rules.currency)
      void form.write({ workFromMin, workToMin, currency: letters }, 'Yard changed');
    return undefined;
  };
  const time = (label: string, value: string, set: (v: string) => void) => (
    <TextField label={label} type="time" value={value} onChange={(e) => set(e.target.value)} />
  );
  return (
    <div className="pb-3">
      <div className="grid max-w-2xl grid-cols-2 items-end gap-3 sm:grid-cols-4">
        {time('Working day from', from, setFrom)}
        {time('to', to, setTo)}
        <TextField label="Currency of prices" value={currency} onChange={(e) => setCurrency(e.target.value)} />
        <button type="button" className="btn" onClick={save}>
          Save yard
        </button>
      </div>
      <FormProblem message={problem} />
      <p className="text-sm quiet">Starts are offered in the working day; 00:00 to 00:00 offers all hours.</p>
    </div>
  );
}

/** What of consumables goes with a coat, a row each. */
function ConsumableTable({ form }: { form: ReturnType<typeof useRules> }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="Consumables">
      <table>
        <thead>
          <tr className="lab text-left">
            {['Consumable', 'how many', 'for', 'put on by', 'in a pack', 'price of a pack', 'supplier'].map((h) => (
              <th key={h} className="px-1 py-1 font-medium">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {form.shown.map((d) => (
            <ConsumableCells d={d} form={form} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function ConsumableCells({ d, form }: { d: Draft; form: ReturnType<typeof useRules> }) {
  return (
    <tr key={d.id}>
      <td className="p-1">{form.cell(d, 'name', 'Name', true)}</td>
      <td className="p-1">{form.cell(d, 'amount', 'How many')}</td>
      <td className="p-1">
        <select
          aria-label={`For, ${d.name}`}
          className="select min-w-36"
          value={d.per}
          onChange={(e) => form.change(d.id, { per: e.target.value as Per })}
        >
          {PER.map((p) => (
            <option key={p} value={p}>
              {PER_WORDS[p]}
            </option>
          ))}
        </select>
      </td>
      <td className="p-1">
        <select
          aria-label={`Put on by, ${d.name}`}
          className="select min-w-28"
          value={d.method ?? ''}
          onChange={(e) => form.change(d.id, { method: (e.target.value || null) as Draft['method'] })}
        >
          <option value="">any</option>
          {Object.entries(METHOD_WORDS).map(([m, words]) => (
            <option key={m} value={m}>
              {words.toLowerCase()}
            </option>
          ))}
        </select>
      </td>
      <td className="p-1">{form.cell(d, 'inPack', 'In a pack')}</td>
      <td className="p-1">{form.cell(d, 'price', 'Price of a pack')}</td>
      <td className="p-1">{form.cell(d, 'supplier', 'Supplier', true)}</td>
      <td className="p-1">
        <button
          type="button"
          className="btn btn-ghost min-w-11"
          aria-label={`Take ${d.name || 'the row'} out`}
          onClick={() => (form.setTouched(true), form.setDrafts(form.shown.filter((x) => x.id !== d.id)))}
        >
          <X size={18} aria-hidden="true" />
        </button>
      </td>
    </tr>
  );
}

function RulesButtons({ form }: { form: ReturnType<typeof useRules> }) {
  return (
    <div className="mt-2 flex flex-wrap gap-3">
      <button
        type="button"
        className="btn"
        onClick={() => (
          form.setTouched(true),
          form.setDrafts([
            ...form.shown,
            { id: uuid(), name: '', amount: '1', per: 'coat', method: null, inPack: '1', price: '', supplier: '' },
          ])
        )}
      >
        <Plus size={16} aria-hidden="true" /> Consumable
      </button>
      {form.touched && (
        <>
          <button
            type="button"
            className="btn btn-primary"
            disabled={form.problem !== null || form.sending}
            onClick={() => void form.saveList()}
          >
            {form.theirs ? 'Keep what stands here' : 'Save rules'}
          </button>
          <button type="button" className="btn" onClick={() => (form.setDrafts(null), form.setTouched(false))}>
            Back
          </button>
        </>
      )}
    </div>
  );
}

/** The rules as they are typed, and how they are sent. */
function useRules(stores: Stores) {
  const { rules } = stores;
  const [drafts, setDrafts] = useState<Draft[] | null>(null);
  const [touched, setTouched] = useState(false);
  useLeaveGuard(touched);
  const { failure, theirs, sending, submit } = useSubmit();
  const shown = drafts ?? rules.consumables.map(toDraft);
  const list = shown.map(fromDraft);
  const problem = touched ? problemOf(list) : null;
  const change = (id: string, part: Partial<Draft>) => (
    setTouched(true),
    setDrafts(shown.map((d) => (d.id === id ? { ...d, ...part } : d)))
  );
  const write = async (next: Partial<YardRules>, label: string) =>
    submit({ kind: 'rules', row: { ...rules, ...next, version: theirs?.version ?? rules.version } }, label);
  const cell = (d: Draft, key: 'name' | 'amount' | 'inPack' | 'price' | 'supplier', label: string, wide = false) => (
    <input
      aria-label={`${label}, ${d.name || 'new row'}`}
      className={`input narrow text-lg ${wide ? 'min-w-40' : 'min-w-20 text-right'}`}
      inputMode={wide ? 'text' : 'decimal'}
      value={d[key]}
      onChange={(e) => change(d.id, { [key]: e.target.value })}
    />
  );
  const saveList = async () => {
    if (!(await write({ consumables: list }, 'Rules for consumables saved'))) return;
    setDrafts(null);
    setTouched(false);
  };
  return {
    rules,
    write,
    shown,
    cell,
    change,
    setTouched,
    setDrafts,
    failure,
    problem,
    touched,
    sending,
    saveList,
    theirs,
  };
}
