import Joi from 'joi';
import { useMemo, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { dimensionProblems } from '#core/hull/area';
import { ESTIMATED_DIMENSIONS, estimateDimensions } from '#core/hull/estimate';
import { boatBody, jobBody } from '#contracts/schemas/boat';
import type { Boat, Job } from '#contracts/rows/boat';
import type { Change } from '../../data/changes';
import { deviceZone } from '../../data/device';
import type { Failure } from '../../data/waiting';
import { saveAll } from '../../data/store';
import { attempt } from '../../parts/attempt';
import { useContractForm } from '../../parts/form';

/** A boat as she is typed: what nobody measured is left empty. */
export interface Values {
  boat: Omit<Boat, 'id' | 'lwlM' | 'freeboardM' | 'latitudeDeg'> & {
    lwlM: number | null;
    freeboardM: number | null;
    latitudeDeg: number | null;
  };
  job: Omit<Job, 'id' | 'yardCostPerDayMinor'> & { yardCostPerDay: number | null };
}

export interface BoatIds {
  readonly boat: string;
  readonly job: string;
}

const mayBeEmpty = (label: string) => Joi.number().positive().max(100).allow(null).required().label(label);

const schema = Joi.object({
  boat: boatBody.keys({
    lwlM: mayBeEmpty('Waterline length'),
    freeboardM: mayBeEmpty('Freeboard'),
    latitudeDeg: Joi.number().min(-75).max(75).allow(null).required().label('Latitude'),
  }),
  job: jobBody.keys({
    yardCostPerDayMinor: Joi.forbidden(),
    yardCostPerDay: Joi.number().min(0).max(1e7).allow(null).label('Yard cost a day'),
  }),
});

/** Where nothing is known of a place at all. */
const MIDDLE_LATITUDE_DEG = 50;

/** The row that stands in a form, its estimates left empty again. */
export function typedOf({ id: _id, ...boat }: Boat): Values['boat'] {
  const empty = Object.fromEntries(boat.estimated.map((figure) => [figure, null]));
  return { ...boat, ...empty };
}

/** The boat that is typed, with estimates for what is left empty; a length that is missing leaves those empty too. */
export function boatOf(typed: Values['boat'], id: string, zoneLatitudeDeg: number | null): Boat {
  const guess = attempt(() => estimateDimensions({ loaM: typed.loaM, form: typed.form })).value;
  const missing = ESTIMATED_DIMENSIONS.filter((d) => typed[d] === null);
  const of = (d: (typeof ESTIMATED_DIMENSIONS)[number]) => typed[d] ?? guess?.[d] ?? (null as never);
  return {
    ...typed,
    id,
    lwlM: of('lwlM'),
    freeboardM: of('freeboardM'),
    latitudeDeg: typed.latitudeDeg ?? zoneLatitudeDeg ?? MIDDLE_LATITUDE_DEG,
    estimated: [...missing, ...(typed.latitudeDeg === null ? (['latitudeDeg'] as const) : [])],
  };
}

/** The boat and job as they are typed, and how they are sent with what belongs to them. */
export function useBoatForm(options: {
  initial: Values;
  ids: BoatIds;
  zoneLatitudeDeg: number | null;
  /** What is saved with her. */
  more: (boat: Boat) => Change[];
  onSaved: () => void;
}) {
  const { initial, ids, zoneLatitudeDeg, more, onSaved } = options;
  const form = useContractForm<Values>(schema, initial);
  const [failure, setFailure] = useState<Failure | null>(null);
  const [sending, setSending] = useState(false);
  const zones = useMemo(
    () =>
      [...new Set([deviceZone(), initial.boat.timeZone, ...Intl.supportedValuesOf('timeZone')])].map(
        (z) => [z, z.replaceAll('_', ' ')] as const,
      ),
    [initial.boat.timeZone],
  );
  const typed = useWatch<Values, 'boat'>({ control: form.control, name: 'boat' });
  const draft = boatOf(typed, ids.boat, zoneLatitudeDeg);
  const drawable =
    [draft.loaM, draft.lwlM, draft.beamM, draft.draftM, draft.freeboardM].every(
      (v) => typeof v === 'number' && Number.isFinite(v),
    ) && dimensionProblems(draft).length === 0;

  const submit = form.handleSubmit(async (values) => {
    const boat = boatOf(values.boat, ids.boat, zoneLatitudeDeg);
    const problems = dimensionProblems(boat);
    for (const p of problems) form.setError(`boat.${p.field}`, { message: p.message });
    if (problems.length > 0) return;
    setSending(true);
    setFailure(null);
    const { yardCostPerDay, ...job } = values.job;
    const minor = yardCostPerDay === null ? null : Math.round(yardCostPerDay * 100);
    const boatChange: Change = { kind: 'boat', row: boat };
    const jobChange: Change = { kind: 'job', row: { ...job, id: ids.job, yardCostPerDayMinor: minor } };
    const outcome = await saveAll([boatChange, jobChange, ...more(boat)], `${boat.name} saved`, { inline: true });
    setSending(false);
    if (outcome.ok) {
      onSaved();
      return;
    }
    // The boat may have been taken and the haul-out not: the next try must start from the newer boat.
    const taken = outcome.refused !== boatChange;
    if (taken) form.setValue('boat.version', values.boat.version + 1);
    if (taken && outcome.refused !== jobChange) form.setValue('job.version', values.job.version + 1);
    setFailure(outcome.failure);
    // Both are shown; saving once more means "mine", on top of theirs.
    if (outcome.failure.code === 'stale')
      form.setValue(taken ? 'job.version' : 'boat.version', (outcome.failure.current as { version: number }).version);
    if (outcome.failure.field && outcome.failure.code !== 'stale')
      form.setError(`${taken ? 'job' : 'boat'}.${outcome.failure.field}` as never, {
        message: outcome.failure.message,
      });
  });
  const theirs = failure?.code === 'stale' ? (failure.current as Record<string, unknown>) : null;
  return { form, submit, drawable, draft, zones, failure, theirs, sending, setFailure };
}
