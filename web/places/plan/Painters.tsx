import { DateTime } from 'luxon';
import { useState } from 'react';
import type { Hand } from '#core/model/jobPlan';
import { handsOf } from '../../data/planning';
import { save, useStores } from '../../data/store';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Who paints, when and for how much; the same for every boat of the yard. */
export function Painters() {
  const { stores } = useStores();
  if (!stores) return null;
  const { rules } = stores;
  const hands = handsOf(rules);
  const put = (next: readonly Hand[], label: string) =>
    void save({ kind: 'rules', row: { ...rules, hands: [...next] } }, label);
  const set = (i: number, more: Partial<Hand>) =>
    put(
      hands.map((h, n) => (n === i ? { ...h, ...more } : h)),
      'Hours changed',
    );
  return (
    <section aria-labelledby="by-painters" className="ruled py-2">
      <h2 id="by-painters">Painters of the yard</h2>
      <ul>
        {hands.map((hand, i) => (
          <PainterRow
            key={hand.name}
            hand={hand}
            currency={rules.currency}
            onChange={(more) => set(i, more)}
            onTakeOut={
              rules.hands.length > 0
                ? () =>
                    put(
                      hands.filter((_, n) => n !== i),
                      `${hand.name} taken out`,
                    )
                : null
            }
          />
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => put([...hands, { ...(hands[0] as Hand), name: freeName(hands) }], 'Painter added')}
      >
        Add a painter
      </button>
    </section>
  );
}

function PainterRow({
  hand,
  currency,
  onChange,
  onTakeOut,
}: {
  hand: Hand;
  currency: string;
  onChange: (more: Partial<Hand>) => void;
  onTakeOut: (() => void) | null;
}) {
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
      <Typed label="Name" value={hand.name} onTyped={(name) => name.trim() && onChange({ name: name.trim() })} />
      <TimeOf
        label={`${hand.name} begins`}
        min={hand.fromMin}
        onTyped={(fromMin) => fromMin < hand.toMin && onChange({ fromMin })}
      />
      to
      <TimeOf
        label={`${hand.name} ends`}
        min={hand.toMin}
        onTyped={(toMin) => toMin > hand.fromMin && onChange({ toMin })}
      />
      <span role="group" aria-label={`Days of ${hand.name}`} className="flex flex-wrap">
        {WEEKDAYS.map((day, d) => (
          <label key={day} className="link-row gap-1 pr-2 lg:min-h-8">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={hand.weekdays.includes(d + 1)}
              onChange={(e) =>
                onChange({
                  weekdays: e.target.checked
                    ? [...hand.weekdays, d + 1].sort((a, b) => a - b)
                    : hand.weekdays.filter((w) => w !== d + 1),
                })
              }
            />
            {day}
          </label>
        ))}
      </span>
      <Typed
        label={`An hour of ${hand.name}, ${currency}`}
        value={hand.perHourMinor === null ? '' : String(hand.perHourMinor / 100)}
        onTyped={(text) => {
          const amount = Number(text.replace(',', '.'));
          if (text.trim() === '' || Number.isFinite(amount))
            onChange({ perHourMinor: text.trim() === '' ? null : Math.max(0, Math.round(amount * 100)) });
        }}
      />
      {onTakeOut && (
        <button type="button" className="btn btn-sm" onClick={onTakeOut}>
          Take out
        </button>
      )}
      <DaysOff hand={hand} onChange={onChange} />
    </li>
  );
}

/** Days on which somebody is not there, first and last. */
function DaysOff({ hand, onChange }: { hand: Hand; onChange: (more: Partial<Hand>) => void }) {
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const last = to === '' ? from : to;
  const date = (label: string, value: string, set: (text: string) => void) => (
    <input
      type="date"
      aria-label={`${label} day off of ${hand.name}`}
      className="input input-sm narrow-field"
      value={value}
      onChange={(e) => set(e.target.value)}
    />
  );
  return (
    <span className="flex flex-wrap items-center gap-2">
      {hand.off.map((o) => (
        <button
          key={o.from + o.to}
          type="button"
          className="btn btn-sm"
          aria-label={`${hand.name} is there again ${civilWords(o)}`}
          onClick={() => onChange({ off: hand.off.filter((x) => x !== o) })}
        >
          off {civilWords(o)} ×
        </button>
      ))}
      {date('First', from, setFrom)}
      {date('Last', to, setTo)}
      <button
        type="button"
        className="btn btn-sm"
        disabled={from === '' || last < from}
        onClick={() => {
          onChange({ off: [...hand.off, { from, to: last }].sort((a, b) => a.from.localeCompare(b.from)) });
          setFrom('');
          setTo('');
        }}
      >
        Days off
      </button>
      {from !== '' && last < from && <span className="text-error">The last day is before the first.</span>}
    </span>
  );
}

const civilWords = ({ from, to }: Hand['off'][number]): string => {
  const words = (date: string) => DateTime.fromISO(date).toFormat('d LLL');
  return from === to ? words(from) : `${words(from)} to ${words(to)}`;
};

function freeName(hands: readonly Hand[]): string {
  for (let n = hands.length + 1; ; n += 1) if (!hands.some((h) => h.name === `Painter ${n}`)) return `Painter ${n}`;
}

/** A field that is taken when it is left. */
function Typed({ label, value, onTyped }: { label: string; value: string; onTyped: (text: string) => void }) {
  return (
    <label className="flex items-center gap-1">
      <span className="quiet text-sm">{label}</span>
      <input
        key={value}
        className="input input-sm narrow-field"
        maxLength={60}
        defaultValue={value}
        onBlur={(e) => e.target.value !== value && onTyped(e.target.value)}
      />
    </label>
  );
}

function TimeOf({ label, min, onTyped }: { label: string; min: number; onTyped: (min: number) => void }) {
  const text = `${String(Math.floor(min / 60) % 24).padStart(2, '0')}:${String(min % 60).padStart(2, '0')}`;
  return (
    <input
      key={text}
      type="time"
      aria-label={label}
      className="input input-sm narrow-field"
      defaultValue={text}
      onBlur={(e) => {
        const [h, m] = e.target.value.split(':').map(Number);
        if (h !== undefined && m !== undefined && Number.isFinite(h) && e.target.value !== text) onTyped(h * 60 + m);
      }}
    />
  );
}
