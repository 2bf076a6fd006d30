import { useId } from 'react';
import type { ProductList } from '#core/stores/shopping';
import type { Unit } from '#core/units/quantities';
import { useFigure } from '../../parts/Fig';

const WIDTH = 300;
const TOP = 5;
const HEIGHT = 14;

/** What the shelf and the packs hold, one beside the other, against what is needed: likely, and how far that may be off. */
export function NeedBar({ product: { need, parts, purchase }, unit }: { product: ProductList; unit: Unit }) {
  const id = useId();
  const figure = useFigure();
  if (!purchase) return null;
  // A part that is short holds up the others: the mix that the shelf makes is that of its scarcest part.
  const shares = parts.map((p) => p.wantL);
  const whole = shares.reduce((a, b) => a + b, 0);
  const shelfL =
    whole > 0 ? Math.min(...parts.map((p, i) => p.onHandL / ((shares[i] as number) / whole || Infinity))) : 0;
  const packs = purchase.packs.flatMap(({ pack, count }) => Array.from({ length: count }, () => pack.sizeL));
  const heldL = shelfL + packs.reduce((a, b) => a + b, 0);
  const [low, high] = [Math.max(0, need.likelyL - 2 * need.sigmaL), need.likelyL + 2 * need.sigmaL];
  const x = (litres: number) => (litres / (Math.max(heldL, high) * 1.02 || 1)) * WIDTH;
  const starts = packs.map((_l, i) => shelfL + packs.slice(0, i).reduce((a, b) => a + b, 0));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT + 2 * TOP}`}
      className="my-1 block w-full"
      role="img"
      aria-label={`Needed about ${figure('volume', need.likelyL, undefined, unit)}, at most about ${figure('volume', high, undefined, unit)}; shelf and packs hold ${figure('volume', heldL, undefined, unit)}`}
    >
      <defs>
        <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 5L5 0" stroke="currentColor" strokeWidth="1" />
        </pattern>
      </defs>
      {shelfL > 0 && (
        <rect x="0" y={TOP} width={x(shelfL)} height={HEIGHT} fill={`url(#${id})`} stroke="currentColor" />
      )}
      {packs.map((litres, i) => (
        <rect
          key={starts[i]}
          x={x(starts[i] as number)}
          y={TOP}
          width={x(litres)}
          height={HEIGHT}
          fill="var(--color-base-200)"
          stroke="currentColor"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <rect x={x(low)} y={TOP + HEIGHT / 2 - 1.5} width={x(high - low)} height="3" fill="currentColor" />
      <path
        d={`M${x(need.likelyL)} 0V${HEIGHT + 2 * TOP}`}
        stroke="currentColor"
        strokeWidth="3"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
