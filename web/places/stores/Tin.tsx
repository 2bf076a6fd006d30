import { useId } from 'react';
import type { LotState } from '#core/stores/lots';

/** A tin to scale by what it holds, filled to what is left; hatched where it is stale. */
export function Tin({ lot, colour }: { lot: LotState; colour: string }) {
  const uid = useId();
  // Bodies of one shape: lengths go with the cube root of the volume.
  const h = 34 + 34 * Math.cbrt(lot.sizeL / 2.5);
  const w = h * 0.72;
  const share = Math.min(1, Math.max(0, lot.nowL / lot.sizeL));
  const rim = w * 0.14;
  const fill = (h - rim) * share;
  const sides = `M1 ${rim}V${h - rim}A${w / 2 - 1} ${rim} 0 0 0 ${w - 1} ${h - rim}V${rim}`;
  return (
    <svg width={w} height={h + 2} viewBox={`0 0 ${w} ${h + 2}`} aria-hidden="true" className="shrink-0">
      <defs>
        <clipPath id={`${uid}-body`}>
          <path d={`${sides}Z`} />
        </clipPath>
        <pattern id={`${uid}-stale`} width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M-1 8L8-1" stroke="#14171a" strokeWidth="1.4" />
        </pattern>
      </defs>
      <g clipPath={`url(#${uid}-body)`}>
        <rect width={w} height={h + 2} fill="var(--color-base-200)" />
        <rect y={h - fill} width={w} height={fill + 2} fill={colour} />
        {lot.stale && <rect width={w} height={h + 2} fill={`url(#${uid}-stale)`} />}
      </g>
      <path d={sides} fill="none" stroke="currentColor" strokeWidth="1.6" />
      <ellipse
        cx={w / 2}
        cy={rim}
        rx={w / 2 - 1}
        ry={rim - 1}
        fill={lot.openedOn === null && lot.tappedOn === null ? 'var(--color-base-300)' : 'none'}
        stroke="currentColor"
        strokeWidth="1.6"
      />
    </svg>
  );
}
