import { Link2 } from 'lucide-react';
import { Link } from 'react-router';
import { useLibrary, useSheets } from '../../data/store';
import { toast } from '../../data/toasts';
import { Choice, SelectField, TextField } from '../../parts/Field';
import { Amounts, type AmountState, type AmountTyped } from '../../parts/tin/Amounts';
import { atTempC, type AtC } from '../../parts/tin/Times';
import { TinAnswers } from '../sheets/AtTheTin';
import { partsOf } from './ratio';
import { Coverage, Dew, Marks, Pump, Wash } from './sums';
import { useLinked } from './useLinked';

const SUMS = [
  ['mix', 'Mix'],
  ['coverage', 'Area, litres, film'],
  ['dew', 'Dew point'],
  ['pot', 'Marks on a pot'],
  ['pump', 'Pump strokes'],
  ['wash', 'Wash'],
] as const;
type Sum = (typeof SUMS)[number][0];

const PAGES: Record<Exclude<Sum, 'mix'>, () => React.ReactNode> = {
  coverage: Coverage,
  dew: Dew,
  pot: Marks,
  pump: Pump,
  wash: Wash,
};

/** Sums at a tin without any boat; all that is typed stands in the address, so that it can be sent as a link. */
export function SumsPlace() {
  const { word, put } = useLinked();
  const sum = SUMS.find(([key]) => key === word('sum'))?.[0] ?? 'mix';
  const Page = sum === 'mix' ? MixSum : PAGES[sum];
  const copy = () =>
    void navigator.clipboard.writeText(location.href).then(
      () => toast('Link copied'),
      () => toast('The link could not be copied: take it from the address of the page.'),
    );
  return (
    <div className="mx-auto w-full max-w-5xl px-3 py-4 sm:px-5">
      <div className="ruled flex items-center gap-3 pb-2">
        <h1 className="mr-auto">At the tin</h1>
        <button type="button" className="btn" onClick={copy}>
          <Link2 size={18} aria-hidden="true" /> Copy link
        </button>
      </div>
      <div className="py-3">
        <Choice label="What" options={SUMS} value={sum} onPick={(key) => put({ sum: key === 'mix' ? null : key })} />
      </div>
      <div className="flex flex-col gap-3">
        <Page />
      </div>
    </div>
  );
}

/** What was measured, in the address. */
function useLinkedAmount(): AmountState {
  const { figure, word, put } = useLinked();
  const of = word('of');
  const by = word('by');
  const typed: AmountTyped = {
    by: by === 'volume' || by === 'mass' ? by : null,
    of: of === null ? null : of === 'mix' ? 'mix' : Number(of),
    amount: figure('amount'),
  };
  const set = (change: Partial<AmountTyped>) =>
    put({
      ...('by' in change ? { by: change.by ?? null } : {}),
      ...('of' in change ? { of: change.of ?? null } : {}),
      ...('amount' in change ? { amount: Number.isNaN(change.amount) ? null : (change.amount ?? null) } : {}),
    });
  return [typed, set];
}

function useLinkedTemp(): AtC {
  const { figure, put } = useLinked();
  return atTempC(figure('at'), (v) => put({ at: v === null || Number.isNaN(v) ? null : v }));
}

/** The ratio of a sheet or of a label: parts by volume and on the scale, pot life and overcoat times. */
function MixSum() {
  const { data: sheets } = useSheets();
  const { data: library } = useLibrary();
  const { word, put } = useLinked();
  const amount = useLinkedAmount();
  const temp = useLinkedTemp();
  const own = (sheets ?? [])
    .filter((s) => !s.withdrawn && !s.current.body.nameOnly)
    .map((s) => ({ id: s.id, body: s.current.body }));
  const shipped = (library?.sheets ?? []).filter((l) => !own.some((o) => o.id === l.id));
  const picked = [...own, ...shipped].find((s) => s.id === word('sheet'));
  return (
    <>
      <SelectField
        label="By"
        value={picked?.id ?? ''}
        options={[
          ['', 'the ratio on its label'],
          ...own.map((s) => [s.id, s.body.name] as const),
          ...shipped.map((s) => [s.id, `${s.body.name} (made up)`] as const),
        ]}
        onPick={(id) => put({ sheet: id, of: null, by: null })}
        hint="A sheet answers for times and weights too."
      />
      {picked ? (
        <TinAnswers key={picked.id} sheet={picked.body} amount={amount} temp={temp} />
      ) : (
        <ByLabel amount={amount} />
      )}
    </>
  );
}

function ByLabel({ amount }: { amount: AmountState }) {
  const { word, put } = useLinked();
  const ratio = word('ratio') ?? '';
  const basis = word('basis') === 'mass' ? 'mass' : 'volume';
  const parts = partsOf(ratio);
  const unread = ratio.trim() !== '' && !parts;
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Ratio"
          value={ratio}
          onChange={(e) => put({ ratio: e.target.value })}
          placeholder="4 : 1"
          error={unread ? 'Type it as on the tin, base first: 4:1.' : undefined}
        />
        <Choice
          label="It is"
          options={[
            ['volume', 'by volume'],
            ['mass', 'by mass'],
          ]}
          value={basis}
          onPick={(picked) => put({ basis: picked === 'mass' ? 'mass' : null, by: null })}
        />
      </div>
      {parts && <Amounts key={basis} parts={parts} basis={basis} state={amount} />}
      <p className="text-sm quiet">
        Pot life and overcoat times stand on the product’s sheet: pick one above, or{' '}
        <Link
          to={`/sheets/new/quick?back=${encodeURIComponent('/sums?sheet=:id')}`}
          className="underline underline-offset-4"
        >
          type a quick one from the tin
        </Link>
        .
      </p>
    </>
  );
}
