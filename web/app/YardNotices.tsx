import type { Yard } from '#contracts/rows/yard';

/** What everyone in the yard has to know of the server itself. */
export function YardNotices({ yard }: { yard: Yard }) {
  const at = (instant: number) => new Date(instant).toLocaleString();
  return (
    <>
      {yard.open && (
        <p className="no-print ruled bg-base-200 px-4 py-1 font-semibold" role="status">
          Open to the network: everyone on it can read and write here.
        </p>
      )}
      {yard.clockBehind !== null && (
        <p className="no-print ruled bg-base-200 px-4 py-1 font-semibold text-error" role="status">
          The clock of the server stands at {at(yard.now)}, before its last entry ({at(yard.clockBehind)}). Set it
          right: windows are told for the wrong time.
        </p>
      )}
    </>
  );
}
