import { useState } from 'react';
import { Link } from 'react-router';
import type { PrepList } from '#core/prep/prepSteps';
import type { PrepLog } from '#core/prep/prepLog';
import { USUAL_FACES } from '#core/prep/wayOut';
import { isMetal } from '#core/hull/zones';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { RUST_NEXT_WORDS } from '../../parts/prepWords';
import { BlastForm } from './BlastForm';
import { DirtForm } from './DirtForm';
import { FoundForm } from './FoundForm';
import { RustForm } from './RustForm';
import { WayOutForm } from './WayOutForm';

type Asked = 'dirt' | 'found' | 'rust' | 'blast' | 'wayOut';

/** What happened to a surface, or was found on it; what is worked out for it. */
export function Happened({
  view,
  surface,
  list,
  log,
}: {
  view: BoatView;
  surface: SurfaceRow;
  list: PrepList;
  log: PrepLog;
}) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const close = () => setAsked(null);
  const metal = isMetal(surface.substrate);
  const inside = USUAL_FACES[surface.kind] !== undefined;
  const blasts = list.steps.some((s) => s.kind === 'blast');
  const buttons: readonly (readonly [Asked, string])[] = [
    ['dirt', 'Something fell on it'],
    ['found', 'Found something'],
    ...(metal ? ([['rust', 'Look at rust']] as const) : []),
    ...(blasts ? ([['blast', 'How much to blast']] as const) : []),
    ...(inside ? ([['wayOut', 'Way out']] as const) : []),
  ];
  return (
    <section aria-labelledby="happened">
      <h2 id="happened" className="ruled pb-1">
        At the surface
      </h2>
      <div className="flex flex-wrap gap-2 py-2">
        {buttons.map(([key, words]) => (
          <button key={key} type="button" className="btn" onClick={() => setAsked(key)}>
            {words}
          </button>
        ))}
        <Link to={`/boats/${view.boat.id}/prep/masking`} className="btn">
          Masking
        </Link>
        <Link to={`/boats/${view.boat.id}/prep/stands`} className="btn">
          Stands
        </Link>
      </div>
      <LeftRust log={log} />
      {log.wayOut && (
        <p>
          Way out: {log.wayOut.faces.map((f) => f.name).join(', ')}.{' '}
          <span className="quiet">
            {log.wayOut.aired ? 'Forced air on' : 'No forced air'}, outside: {log.wayOut.second || 'nobody named'}
          </span>
        </p>
      )}
      {asked === 'dirt' && <DirtForm view={view} surface={surface} onClose={close} />}
      {asked === 'found' && <FoundForm view={view} surface={surface} onClose={close} />}
      {asked === 'rust' && <RustForm view={view} surface={surface} log={log} onClose={close} />}
      {asked === 'blast' && <BlastForm view={view} surface={surface} onClose={close} />}
      {asked === 'wayOut' && <WayOutForm view={view} surface={surface} log={log} onClose={close} />}
    </section>
  );
}

/** Rust as it was last looked at; what is left knowingly, with its date. */
function LeftRust({ log }: { log: PrepLog }) {
  const last = log.rust.at(-1);
  if (!last) return null;
  const left = log.rust.filter((r) => r.next === 'leave');
  return (
    <>
      <p>
        Rust: <span className="font-semibold">{RUST_NEXT_WORDS[last.next].toLowerCase()}</span>
        {last.convertedShare !== null && `, ${Math.round(last.convertedShare * 100)} % black`}
        {last.pitMm ? `, pits ${last.pitMm} mm` : ''}
      </p>
      {left.map((r) => (
        <p key={r.id} className="border-l-4 border-warning pl-3">
          Left until {r.dueOn}: {r.reason}
        </p>
      ))}
    </>
  );
}
