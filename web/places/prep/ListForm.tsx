import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { PREP_KINDS, type PrepKind, type PrepPlanBody, type PrepWay } from '#core/model/prep';
import type { PrepList } from '#core/prep/prepSteps';
import { waysFor } from '#core/prep/ways';
import type { SurfaceRow } from '#contracts/rows/boat';
import type { BoatView } from '../../data/store';
import { BottomSheet } from '../../parts/BottomSheet';
import { FormProblem, SelectField, TextField } from '../../parts/Field';
import { PREP_WORDS, WAY_WORDS } from '../../parts/prepWords';
import { OtherZones } from './OtherZones';
import { logOnZones, planOf } from './usePrep';

/** The way a zone is got ready by, and steps of its own; the same for several zones in one go. */
export function ListForm({
  view,
  surface,
  list,
  onClose,
}: {
  view: BoatView;
  surface: SurfaceRow;
  list: PrepList;
  onClose: () => void;
}) {
  const [way, setWay] = useState<PrepWay | null>(list.way);
  const [kind, setKind] = useState<PrepKind>('other');
  const [text, setText] = useState('');
  const [also, setAlso] = useState<string[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const plan = planOf(view, surface.id);
  const [kept, setKept] = useState(plan.added);
  const others = view.surfaces.filter((s) => s.id !== surface.id);
  const save = async () => {
    const words = text.trim() || (kind === 'other' ? '' : PREP_WORDS[kind]);
    const added = words ? [...kept, { key: uuid(), kind, text: words }] : kept;
    const bodyFor = (zone: string): PrepPlanBody => {
      const own = planOf(view, zone);
      if (zone === surface.id) return { ...own, way: way === list.way && own.way === null ? null : way, added };
      const fresh = added.filter((a) => !plan.added.some((p) => p.key === a.key));
      return { ...own, way: way === list.way ? own.way : way, added: [...own.added, ...fresh] };
    };
    const wrong = await logOnZones(
      view,
      [surface.id, ...also],
      (zone) => ({ kind: 'prepPlanned', body: bodyFor(zone) }),
      'List changed',
    );
    if (wrong) setProblem(wrong);
    else onClose();
  };
  return (
    <BottomSheet title={`Steps of ${surface.name}`} onClose={onClose}>
      <div className="flex flex-col gap-3">
        {list.way && (
          <SelectField
            label="The way"
            value={way ?? list.way}
            options={waysFor(surface).map((w) => [w, WAY_WORDS[w]] as const)}
            onPick={setWay}
            hint="Usual ways for what it is made of and what is on it"
          />
        )}
        <Added steps={kept} onOff={(key) => setKept(kept.filter((k) => k.key !== key))} />
        <div className="grid grid-cols-2 gap-3">
          <SelectField
            label="Add a step"
            value={kind}
            options={PREP_KINDS.filter((k) => k !== 'mask').map((k) => [k, PREP_WORDS[k]] as const)}
            onPick={setKind}
          />
          <TextField label="In words" value={text} onChange={(e) => setText(e.target.value)} maxLength={300} />
        </div>
        <OtherZones zones={others} picked={also} onPick={setAlso} />
        <FormProblem message={problem} />
        <button type="button" className="btn btn-primary" onClick={() => void save()}>
          Save the list
        </button>
      </div>
    </BottomSheet>
  );
}

/** Steps that were added by hand. */
function Added({ steps, onOff }: { steps: PrepPlanBody['added']; onOff: (key: string) => void }) {
  if (steps.length === 0) return null;
  return (
    <ul className="sheet-rule" aria-label="Steps added">
      {steps.map((a) => (
        <li key={a.key} className="flex items-center justify-between gap-3">
          {a.text}
          <button type="button" className="link-row underline underline-offset-4" onClick={() => onOff(a.key)}>
            Take off
          </button>
        </li>
      ))}
    </ul>
  );
}
