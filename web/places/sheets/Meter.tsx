import { completeness } from '#core/sheet/completeness';
import type { SheetBody } from '#core/model/sheet';

/** How far a sheet answers what it is asked, and what stays unanswered until a field is filled. */
export function Meter({ sheet }: { sheet: SheetBody }) {
  const { share, gaps } = completeness(sheet);
  const percent = Math.round(share * 100);
  return (
    <section aria-label="How complete it is">
      <p className="flex items-baseline justify-between">
        <span className="lab">answers</span> <span className="fig text-xl">{percent} %</span>
      </p>
      <svg
        viewBox="0 0 100 6"
        preserveAspectRatio="none"
        className="block h-2.5 w-full"
        role="img"
        aria-label={`${percent} % of what is asked of such a sheet`}
      >
        <rect width="100" height="6" fill="var(--color-base-300)" />
        <rect width={percent} height="6" fill="currentColor" />
      </svg>
      {gaps.length > 0 && (
        <ul className="mt-1.5 text-[0.95rem]">
          {gaps.map((g) => (
            <li key={g.cannot} className="border-t border-base-300 py-0.5">
              {g.cannot}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
