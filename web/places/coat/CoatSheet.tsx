import { Navigate, useParams } from 'react-router';
import { Drawn } from './Drawn';
import { Finished } from './Finished';
import { useView } from '../../app/BoatShell';
import { NotFound } from '../../app/PlaceError';
import { coatName, METHOD_WORDS } from '../../parts/words';
import { EntryList } from './EntryList';
import { InHand } from './inhand/InHand';
import { PaintSays } from './PaintSays';
import { RatioMark } from './RatioMark';
import { Learned } from './Learned';
import { Pictures } from '../../parts/Pictures';
import { Uncoated } from './Uncoated';

/** One coat: while it goes on the wet film in huge figures; once finished its clocks and hand tests. */
export function CoatSheet() {
  const view = useView();
  const { coatId } = useParams();
  const coat = view.coats.find((c) => c.id === coatId);
  if (!coat)
    return view.entries.some((e) => e.streamId === coatId) ? (
      <Navigate to={`/boats/${view.boat.id}/coat`} replace />
    ) : (
      <NotFound what="coat" />
    );
  const revision = view.sheetById.get(coat.sheetRevisionId);
  const sheet = revision?.body;
  if (!revision || !sheet) return <NotFound what="data sheet" />;
  const zones = coat.on.map((t) => view.zoneName(t.surfaceId));
  const number = view.coats.filter(
    (c) =>
      c.sheetRevisionId === coat.sheetRevisionId &&
      c.startedAt <= coat.startedAt &&
      c.on.some((t) => coat.on.some((o) => o.surfaceId === t.surfaceId)),
  ).length;
  return (
    <div className="grid min-w-0 gap-x-10 gap-y-4 lg:grid-cols-2">
      <div className="flex min-w-0 flex-col gap-3">
        {coat.finishedAt === null ? (
          <InHand view={view} coat={coat} sheet={sheet} number={number} />
        ) : (
          <>
            <header>
              <h1 className="text-[1.9rem]">
                {zones.join(', ')}: {coatName(sheet.kind, number)}
              </h1>
              <p>
                {sheet.name}, {coat.colour}, {METHOD_WORDS[coat.method].toLowerCase()} · finished
              </p>
            </header>
            <Finished view={view} coat={coat} />
            <PaintSays view={view} coat={coat} />
            <Uncoated view={view} coat={coat} />
            <Learned view={view} coat={coat} revision={revision} />
          </>
        )}
      </div>
      <div className="min-w-0">
        {coat.finishedAt !== null && <Drawn view={view} coat={coat} sheet={sheet} />}
        <RatioMark view={view} coat={coat} revision={revision} />
        <Pictures pictures={coat.pictures} />
        <EntryList view={view} coat={coat} />
      </div>
    </div>
  );
}
