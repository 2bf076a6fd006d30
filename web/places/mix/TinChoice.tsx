import type { PourStep } from '#core/mix/pouring';
import type { LotState } from '#core/stores/lots';
import { useFigure } from '../../parts/Fig';
import { NO_TIN } from './typed';
import type { Mix } from './useMix';

/** Which tin it is poured from: the one suggested, opened first and oldest first, or another; past its date it says so. */
export function TinChoice({ mix, step }: { mix: Mix; step: PourStep }) {
  const { tins, pouring, typed, setTyped, sheet, mixedId } = mix;
  const figure = useFigure();
  if (!tins || !pouring || step.kind === 'additive') return null;
  const part = step.kind === 'thinner' ? (sheet.thinner?.name ?? '') : step.name;
  const own = tins.filter((t) => t.part === part && t.nowL > 0);
  if (own.length === 0) return <span className="text-sm quiet">no tin of it on the shelf</span>;
  const from = pouring.from.filter((f) => f.part === part);
  const taken = own.filter((t) => from.some((f) => f.lotId === t.id));
  const words = (t: LotState) =>
    [
      t.batchNumber || `tin of ${figure('volume', t.sizeL)}`,
      `${figure('volume', t.nowL)} left`,
      t.openedOn ? '' : 'unopened',
      t.stale ? `past its date since ${t.staleFrom}` : '',
      t.note,
    ]
      .filter(Boolean)
      .join(', ');
  const [first] = taken;
  return (
    <label className="flex min-h-11 min-w-0 items-center gap-1 text-sm">
      <span className="quiet">from</span>
      <select
        className={`narrow min-h-11 max-w-64 min-w-0 truncate bg-base-100 underline underline-offset-4 ${first?.stale ? 'font-semibold text-error' : ''}`}
        aria-label={`Tin of ${step.name}`}
        disabled={mixedId !== null}
        value={typed.tins?.[step.name] ?? first?.id ?? NO_TIN}
        onChange={(e) => setTyped({ tins: { ...typed.tins, [step.name]: e.target.value } })}
      >
        {own.map((t) => (
          <option key={t.id} value={t.id}>
            {words(t)}
          </option>
        ))}
        <option value={NO_TIN}>a tin that is not on the shelf</option>
      </select>
      {taken.length > 1 && <span className="quiet">and {taken.length - 1} more</span>}
    </label>
  );
}
