import { TriangleAlert } from 'lucide-react';
import { DateTime } from 'luxon';
import { useMemo } from 'react';
import { cautionsFor, type CareStep } from '#core/care/cautions';
import { standing } from '#core/coat/fold';
import type { Caution } from '#core/model/log';
import type { PaintMethod } from '#core/model/paintMethod';
import type { SheetBody } from '#core/model/sheet';
import type { ZoneKind } from '#core/model/surface';
import { useSettings } from '../data/settings';
import { logEntry, type BoatView } from '../data/store';

const WORDS: Record<Caution, string> = {
  isocyanate: 'Isocyanates: air-fed mask for spraying, gloves, nobody without one near.',
  epoxy: 'Epoxy sensitises for life: gloves, sleeves, no solvent on skin.',
  solvent: 'Vapour: the right cartridge, flames and heaters out, earth what is sprayed with.',
  confined: 'Confined space: forced air before and during, a second person outside, a gas test where rules say so.',
  biocide: 'Biocide: abrade wet or with extraction, catch what falls, never sand old antifouling dry.',
  hotPot: 'A pot that is left heats up: spread it out, outdoors on stone, never in the bin or the bilge.',
  rags: 'Oily rags catch fire by themselves: spread them out wet, outdoors, or in a lidded tin.',
  oldPaint: 'Old paint may hold lead or tin: test it, wet or with extraction, and no dust home on your clothes.',
  blasting: 'Blasting: enclosure, air-fed helmet, nobody near; spent grit with old paint is waste to be handed in.',
  hotWork: 'Hot work: nothing flammable or freshly painted near or behind the plate, a fire watch after it.',
  acid: 'Acid in converter and etch: goggles and gloves; rinse where the sheet says so, catch what runs off.',
  staging: 'Ladder and staging: tied, on firm ground. Stands are moved by the yard only.',
};

/** What can hurt at a step of painting. */
export function Cautions({
  view,
  step,
  sheet,
  surfaceIds,
  method,
}: {
  view: BoatView;
  step: CareStep;
  sheet: SheetBody;
  surfaceIds: readonly string[];
  method: PaintMethod;
}) {
  const zones = surfaceIds.flatMap((id) => view.surfaces.filter((s) => s.id === id)).map((s): ZoneKind => s.kind);
  return <CautionsOf view={view} cautions={cautionsFor({ step, sheet, zones, method })} surfaceIds={surfaceIds} />;
}

/** Cautions, each once a day for each painter: read with a tap, and kept in the log that they were. */
export function CautionsOf({
  view,
  cautions,
  surfaceIds,
}: {
  view: BoatView;
  cautions: readonly Caution[];
  surfaceIds: readonly string[];
}) {
  const { painter } = useSettings();
  const [first] = surfaceIds;
  // Its page is drawn at every key pressed in a field; the log is put in order once.
  const { entries, boat, at } = view;
  const read = useMemo(() => readToday({ entries, boat, at }, painter), [entries, boat, at, painter]);
  const open = cautions.filter((c) => !read.has(c));
  if (open.length === 0 || !first) return null;
  const acknowledge = () => {
    for (const caution of open)
      void logEntry(
        { boatId: view.boat.id, stream: 'zone', streamId: first, kind: 'cautioned', body: { caution } },
        'Cautions read',
        { quiet: caution !== open[0] },
      );
  };
  return (
    <section className="my-2 border-l-4 border-base-content bg-base-200 px-3 py-2" aria-label="Cautions">
      <ul>
        {open.map((c) => (
          <li key={c} className="flex items-start gap-2">
            <TriangleAlert size={18} aria-hidden="true" className="mt-1 shrink-0" />
            {WORDS[c]}
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap items-center gap-x-4 text-sm">
        <span className="min-w-0 flex-1">
          Follow the maker’s sheet and your local rules; ask a licensed or competent person where the law wants one.
        </span>
        <button type="button" className="btn" onClick={acknowledge}>
          Read
        </button>
      </p>
    </section>
  );
}

/** What this painter has read today, by the boat's own day. */
function readToday(
  { entries, boat, at }: Pick<BoatView, 'entries' | 'boat' | 'at'>,
  painter: string,
): ReadonlySet<Caution> {
  const day = (t: number) => DateTime.fromMillis(t, { zone: boat.timeZone }).toISODate();
  const today = day(at);
  return new Set(
    standing(entries).flatMap((e) =>
      e.kind === 'cautioned' && e.painter === painter && day(e.occurredAt) === today ? [e.body.caution] : [],
    ),
  );
}
