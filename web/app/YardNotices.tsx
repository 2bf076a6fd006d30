import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Yard } from '#contracts/rows/yard';
import { serverAheadMs } from '../data/now';

/** Clocks further apart than this are not both right. */
const APART_MS = 10 * 60_000;

/** What everyone in the yard has to know of the server itself. */
export function YardNotices({ yard }: { yard: Yard }) {
  const at = (instant: number) => new Date(instant).toLocaleString();
  const apart = !yard.clockSet && !yard.frozen && Math.abs(serverAheadMs()) > APART_MS;
  return (
    <>
      {yard.open && <Notice>Open to the network: everyone on it can read and write here.</Notice>}
      {yard.savingWaits !== null && <Notice grave>{yard.savingWaits}</Notice>}
      {yard.keptNotice !== null && (
        <Notice grave>
          There was a gap in what is kept on the server’s disk.{' '}
          <Link to="/settings#backup" className="underline underline-offset-4">
            See Settings
          </Link>
        </Notice>
      )}
      {yard.clockBehind !== null && (
        <Notice grave>
          The clock of the server stands at {at(yard.now)}, before its last entry ({at(yard.clockBehind)}). Set it
          right: windows are told for the wrong time.
        </Notice>
      )}
      {apart && (
        <Notice grave>
          This device’s clock says {at(yard.now - serverAheadMs())}, the server’s {at(yard.now)}: one of them is wrong.
          Entries are timed by the server’s. Set right the one that is wrong.
        </Notice>
      )}
    </>
  );
}

function Notice({ grave = false, children }: { grave?: boolean; children: ReactNode }) {
  return (
    <p className={`no-print ruled bg-base-200 px-4 py-1 font-semibold ${grave ? 'text-error' : ''}`} role="status">
      {children}
    </p>
  );
}
