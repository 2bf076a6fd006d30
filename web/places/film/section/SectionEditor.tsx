import type { ComponentProps } from 'react';
import { useWidth } from '../../../parts/useWidth';
import { onto } from './CoatRow';
import { CoatRows } from './CoatRows';
import { pitchFor } from './layout';
import { Stack } from './Stack';

const NARROW = 560;
/** From here on a strip tells the spreading rate too: Tailwind's `2xl`. */
const WIDEST_PX = 1536;

/** The section and its coats beside it: the editor of a build-up. */
export function SectionEditor(
  props: Omit<ComponentProps<typeof Stack>, 'width' | 'pitch'> &
    Omit<ComponentProps<typeof CoatRows>, 'coats' | 'selected' | 'onPick' | 'pitch'>,
) {
  const { coats, selected, onPick, substrate, targetMicron, onFilm, onFilmDone, ...rows } = props;
  const [box, width] = useWidth<HTMLDivElement>(620);
  const narrow = width < NARROW;
  const stack = narrow ? 120 : Math.min(300, Math.round(width * 0.38));
  const rem = parseFloat(getComputedStyle(document.documentElement).fontSize);
  const pitch = pitchFor({
    narrow,
    // Beside the texts stand a handle, a colour and figures.
    rowRoom: width - stack - (narrow ? 132 : 150) * (rem / 16),
    stripRoom: width - stack - (narrow ? 176 : innerWidth >= WIDEST_PX ? 390 : 280) * (rem / 16),
    rem,
    rows: coats.map((c) => `${c.name} ${c.layer.colour}`),
    strips: coats.map((c, i) => onto(c, coats[i - 1]?.name ?? rows.ground)),
  });
  return (
    <div ref={box} className="flex min-w-0 items-start overflow-x-clip">
      <Stack
        coats={coats}
        selected={selected}
        onPick={onPick}
        substrate={substrate}
        targetMicron={targetMicron}
        pitch={pitch}
        width={stack}
        onFilm={onFilm}
        onFilmDone={onFilmDone}
      />
      <CoatRows coats={coats} selected={selected} onPick={onPick} pitch={pitch} {...rows} />
    </div>
  );
}
