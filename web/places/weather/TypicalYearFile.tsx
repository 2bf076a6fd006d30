import { useState } from 'react';
import { EPW_MOST_BYTES, parseEpw } from '#core/air/epw';
import { NO_JOB_PLAN, type TypicalYear } from '#core/model/jobPlan';
import { sendFile } from '../../data/files';
import { save, type BoatView } from '../../data/store';
import { FormProblem } from '../../parts/Field';

/** A place further off than this, degrees of latitude, has other seasons. */
const FAR_DEG = 3;

/** A typical year of her place as an EPW file: what a plan goes on beyond the forecast. */
export function TypicalYearFile({ view }: { view: BoatView }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const job = view.jobs[view.jobs.length - 1];
  const year = job?.planning?.typicalYear ?? null;
  const put = async (typicalYear: TypicalYear | null, label: string) => {
    if (!job) return;
    const row = { ...job, planning: { ...(job.planning ?? NO_JOB_PLAN), typicalYear } };
    const outcome = await save({ kind: 'job', row }, label, { inline: true });
    if (!outcome.ok) setProblem(outcome.failure.message);
  };
  const take = async (file: File | undefined) => {
    if (!file) return;
    setProblem(null);
    if (file.size > EPW_MOST_BYTES)
      return setProblem(
        `The file has ${Math.round(file.size / 1e6)} MB; an EPW file of a year has about two. Choose the .epw itself.`,
      );
    setBusy(true);
    try {
      const { place } = parseEpw(await file.text());
      const { fileHash } = await sendFile(file);
      await put({ fileHash, name: place.name, latitudeDeg: place.latitudeDeg }, 'Typical year brought in');
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  const far = year !== null && Math.abs(year.latitudeDeg - view.boat.latitudeDeg) > FAR_DEG;
  return (
    <section aria-label="A typical year" className="ruled py-2">
      <p>
        {year
          ? `Beyond the forecast plans go on with the typical year of ${year.name || 'the file'}.`
          : 'Beyond the forecast plans go on with a made-up typical year of her latitude, marked ≈.'}
      </p>
      {far && (
        <p className="border-l-4 border-warning pl-3">
          It was made for latitude {year.latitudeDeg.toFixed(1)}°, she stands at {view.boat.latitudeDeg.toFixed(1)}°.
          Take one from nearer by.
        </p>
      )}
      {job ? (
        <div className="flex flex-wrap items-end gap-3">
          <label className="flex flex-col gap-1">
            <span className="lab">Weather file of a typical year, EPW</span>
            <input
              type="file"
              accept=".epw,text/plain"
              className="file-input min-h-11"
              disabled={busy}
              onChange={(e) => void take(e.target.files?.[0])}
            />
          </label>
          {year && (
            <button type="button" className="btn" onClick={() => void put(null, 'Typical year taken off')}>
              Take off
            </button>
          )}
        </div>
      ) : (
        <p className="quiet">It is kept with a haul-out: add one first.</p>
      )}
      <FormProblem message={problem} />
    </section>
  );
}
