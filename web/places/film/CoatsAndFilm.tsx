import type { SheetRevision } from '#core/model/sheet';
import { Fig } from '../../parts/Fig';
import type { SectionCoat } from './section/coat';
import { coatRuns } from './coatRuns';

/** The same build-up in coats, for those who count them, and in film, for those who measure it. */
export function CoatsAndFilm({
  coats,
  sheetById,
}: {
  coats: readonly SectionCoat[];
  sheetById: ReadonlyMap<string, SheetRevision>;
}) {
  const { runs, barrierMicron } = coatRuns(coats, sheetById);
  return (
    <>
      <p className="lab mt-2 flex justify-between border-b border-base-300">
        <span>In coats</span> <span>In film</span>
      </p>
      <ul aria-label="In coats and in film">
        {runs.map((run, i) => (
          <RunLine key={`${run.name}${i}`} {...run} />
        ))}
        {barrierMicron !== null && (
          <RunLine name="barrier in all" coats={null} colours={[]} keptMicron={barrierMicron} />
        )}
      </ul>
    </>
  );
}

interface RunLineProps {
  name: string;
  coats: number | null;
  colours: readonly string[];
  keptMicron: number;
}

function RunLine({ name, coats, colours, keptMicron }: RunLineProps) {
  return (
    <li className="flex h-7 items-center gap-2">
      <span className="fig w-6 shrink-0">{coats === null ? '' : `${coats} ×`}</span>
      <span className="flex-1 min-w-0 truncate">
        {name} {colours.length > 0 && <span className="quiet">{colours.join(', ')}</span>}
      </span>
      <Fig quantity="film" value={keptMicron} className="min-w-12 shrink-0 text-right" />
    </li>
  );
}
