import { computed, type ReadonlySignal } from '@preact/signals-core';
import { useMemo } from 'react';
import type { SheetRevision } from '#core/sheet/sheet';
import { LiveFig } from '../../parts/live';
import type { SectionCoat } from './section/Stack';
import { told } from './told';

/** The same build-up in coats, for those who count them, and in film, for those who measure it. */
export function CoatsAndFilm({
  coats,
  sheetById,
}: {
  coats: ReadonlySignal<readonly SectionCoat[]>;
  sheetById: ReadonlyMap<string, SheetRevision>;
}) {
  const live = useMemo(() => computed(() => told(coats.value, sheetById)), [coats, sheetById]);
  const { runs, barrierMicron } = live.peek();
  return (
    <>
      <p className="lab mt-2 flex justify-between border-b border-base-300">
        <span>In coats</span> <span>In film</span>
      </p>
      <ul
        aria-label="In coats and in film"
        className="box-of-its-own"
        style={{ height: `${(runs.length + (barrierMicron === null ? 0 : 1)) * RUN_REM}rem` }}
      >
        {runs.map((run, i) => (
          <RunLine
            key={`${run.name}${i}`}
            name={run.name}
            coats={run.coats}
            colours={run.colours.join(', ')}
            keptMicron={() => live.value.runs[i]?.keptMicron ?? 0}
          />
        ))}
        {barrierMicron !== null && (
          <RunLine name="barrier in all" coats={null} colours="" keptMicron={() => live.value.barrierMicron ?? 0} />
        )}
      </ul>
    </>
  );
}

const RUN_REM = 1.75;

function RunLine({
  name,
  coats,
  colours,
  keptMicron,
}: {
  name: string;
  coats: number | null;
  colours: string;
  keptMicron: () => number;
}) {
  return (
    <li className="flex items-center gap-2" style={{ height: `${RUN_REM}rem` }}>
      <span className="fig w-6 shrink-0">{coats === null ? '' : `${coats} ×`}</span>
      <span className="flex-1 cut">
        {name} {colours && <span className="quiet">{colours}</span>}
      </span>
      <LiveFig quantity="film" of={keptMicron} className="min-w-12 shrink-0 text-right" />
    </li>
  );
}
