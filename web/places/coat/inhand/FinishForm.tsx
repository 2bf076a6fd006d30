import { useState } from 'react';
import type { Coat } from '#core/coat/fold';
import { finishProblem } from '#core/coat/paintOn';
import type { FinishedBody } from '#core/model/log';
import type { SheetBody } from '#core/model/sheet';
import { now } from '../../../data/now';
import { logEntry, type BoatView } from '../../../data/store';
import { Choice, FormProblem, QuantityField } from '../../../parts/Field';
import { Cautions } from '../../../parts/Cautions';
import { Fig } from '../../../parts/Fig';
import { TimeField } from '../../../parts/TimeField';
import { Conditions, NO_READINGS } from '../Conditions';
import { logReadings } from '../logReadings';
import type { InHandFacts } from './useInHand';

interface Props {
  view: BoatView;
  coat: Coat;
  facts: InHandFacts;
  sheet: SheetBody;
  onDone: () => void;
}

/** When it was finished, where its paint went, how much of the zones has it, and the air then. */
export function FinishForm(props: Props) {
  const { view, coat, facts } = props;
  const form = useFinish(props);
  const { said, say, mixedL } = form;
  const partly = facts.zones.filter((z) => z.share > 0 || z.done.length > 0).some((z) => z.done.length < z.panels.of);
  return (
    <section className="flex flex-col gap-3" aria-label="Finish">
      {form.earlier && <TimeField label="Finished" at={form.at} onAt={form.setAt} zone={view.boat.timeZone} />}
      {partly && (
        <Choice
          label="How much has it"
          options={[
            ['all', 'All of it'],
            ['ticked', `As ticked: ${facts.zones.map((z) => `${z.done.length} of ${z.panels.of}`).join(', ')}`],
          ]}
          value={form.covered}
          onPick={form.setCovered}
        />
      )}
      {mixedL > 0 ? (
        <>
          <p>
            <Fig quantity="volume" value={mixedL} /> mixed for it.
          </p>
          <div className="grid grid-cols-2 gap-3">
            <QuantityField
              label="Left in the pot"
              quantity="volume"
              value={said.leftL ?? null}
              onValue={(leftL) => say({ leftL })}
              hint="It stays for the next coat while it lives."
            />
            <QuantityField
              label="Lost on tray and roller"
              quantity="volume"
              value={said.lostL ?? null}
              onValue={(lostL) => say({ lostL })}
              hint="Left empty: as the build-up reckons"
            />
          </div>
        </>
      ) : (
        <QuantityField
          label="Litres on the hull, if known"
          quantity="volume"
          value={said.litresOn}
          onValue={(litresOn) => say({ litresOn })}
          hint="With the comb they tell the area that was really covered."
        />
      )}
      <Conditions
        view={view}
        surfaceId={coat.on[0]?.surfaceId ?? ''}
        readings={form.readings}
        onRead={(change) => form.setReadings({ ...form.readings, ...change })}
      />
      <Cautions
        view={view}
        step="finish"
        sheet={props.sheet}
        surfaceIds={coat.on.map((t) => t.surfaceId)}
        method={coat.method}
      />
      <FormProblem message={form.problem} />
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary grow text-xl" onClick={form.finish}>
          {form.challenged ? 'It was that much all the same' : form.earlier ? 'Finish at that time' : 'Finish now'}
        </button>
        {!form.earlier && (
          <button type="button" className="btn" onClick={() => form.setEarlier(true)}>
            It was earlier
          </button>
        )}
      </div>
    </section>
  );
}

/** What is said of a finish, and how it is logged. */
function useFinish({ view, coat, facts, onDone }: Props) {
  const mixedL = coat.batches.reduce((sum, b) => sum + b.litres, 0);
  const [said, setSaid] = useState<FinishedBody>({ litresOn: null, leftL: null, lostL: null });
  // A coat that rests was finished when it was paused, unless somebody says otherwise.
  const [earlier, setEarlier] = useState(coat.pausedAt !== null);
  const [at, setAt] = useState(() => coat.pausedAt ?? now());
  const [covered, setCovered] = useState<'all' | 'ticked'>('ticked');
  const [readings, setReadings] = useState(NO_READINGS);
  const [problem, setProblem] = useState<string | null>(null);
  const [challenged, setChallenged] = useState(false);
  const say = (change: Partial<FinishedBody>) => {
    setSaid({ ...said, ...change });
    setChallenged(false);
  };
  const ids = { boatId: view.boat.id, stream: 'coat', streamId: coat.id } as const;
  const finish = () => {
    const finishedAt = earlier ? at : now();
    if (!Number.isFinite(finishedAt) || finishedAt > now())
      return setProblem('The finish has not come yet. Check the date and time.');
    if (finishedAt < coat.startedAt) return setProblem('The coat would finish before it started. Check the time.');
    const wrong = finishProblem({ said, mixedL });
    if (wrong && !(wrong.challenge && challenged)) {
      setChallenged(wrong.challenge);
      return setProblem(wrong.text);
    }
    setProblem(null);
    logReadings({ view, coat, readings, at: finishedAt });
    if (covered === 'all')
      for (const { surface, share } of facts.zones)
        if (share < 1)
          void logEntry(
            { ...ids, kind: 'covered', occurredAt: finishedAt, body: { surfaceId: surface.id, share: 1 } },
            'All of it covered',
            { quiet: true },
          );
    void logEntry({ ...ids, kind: 'finished', occurredAt: finishedAt, body: said }, 'Coat finished');
    onDone();
    return undefined;
  };
  return {
    mixedL,
    said,
    say,
    earlier,
    setEarlier,
    at,
    setAt,
    covered,
    setCovered,
    readings,
    setReadings,
    problem,
    challenged,
    finish,
  };
}
