import type { Coat } from '#core/coat/fold';
import { usableReadings, type StartReadings } from '#core/coat/start';
import { logEntry, type BoatView } from '../../data/store';

/** Log what was read of air and surface during a coat, if anything was. */
export function logReadings({
  view,
  coat,
  readings,
  at,
}: {
  view: BoatView;
  coat: Pick<Coat, 'id'>;
  readings: StartReadings;
  at?: number;
}): void {
  const { airC, rh, surfaceC } = usableReadings(readings);
  if (airC === null && rh === null && surfaceC === null) return;
  void logEntry(
    {
      boatId: view.boat.id,
      stream: 'coat',
      streamId: coat.id,
      kind: 'reading',
      body: { airC, rh, surfaceC },
      ...(at === undefined ? {} : { occurredAt: at }),
    },
    'Conditions logged',
    { quiet: true },
  );
}
