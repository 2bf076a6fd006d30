import type { ComponentProps } from 'react';
import { useWidth } from '../../../parts/useWidth';
import { CoatRows } from './CoatRows';
import { DENSE, ROOMY } from './layout';
import { Stack } from './Stack';

const NARROW = 560;

/** The section and its coats beside it: the editor of a build-up. */
export function SectionEditor(
  props: Omit<ComponentProps<typeof Stack>, 'width' | 'pitch'> &
    Omit<ComponentProps<typeof CoatRows>, 'coats' | 'selected' | 'onPick' | 'pitch'>,
) {
  const { coats, selected, onPick, substrate, targetMicron, onFilm, onFilmDone, ...rows } = props;
  const [box, width] = useWidth<HTMLDivElement>(620);
  const narrow = width < NARROW;
  const pitch = narrow ? ROOMY : DENSE;
  return (
    <div ref={box} className="flex min-w-0 items-start overflow-x-clip">
      <Stack
        coats={coats}
        selected={selected}
        onPick={onPick}
        substrate={substrate}
        targetMicron={targetMicron}
        pitch={pitch}
        width={narrow ? 140 : Math.min(300, Math.round(width * 0.42))}
        onFilm={onFilm}
        onFilmDone={onFilmDone}
      />
      <CoatRows coats={coats} selected={selected} onPick={onPick} pitch={pitch} {...rows} />
    </div>
  );
}
