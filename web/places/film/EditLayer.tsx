import { type Layer } from '#core/model/layer';
import { layerQuantities, layerWorking, type AreaOf } from '#core/film/layer';
import { USUAL_LOSS } from '#core/film/spreading';
import { type SheetBody, type SheetRevision } from '#core/model/sheet';
import { onProduct } from '#core/system/system';
import { FilmFields, BondFields, CoatColourFields } from './layerFields';
import { useCoatDraft, coatForm } from './useCoatDraft';
import { attempt } from '../../parts/attempt';
import { Choice, FormProblem, SelectField } from '../../parts/Field';
import { Fig } from '../../parts/Fig';
import { METHOD_WORDS, SHEET_KIND_WORDS } from '../../parts/words';
import { Why } from '../../parts/Why';

const METHODS = Object.entries(METHOD_WORDS) as [Layer['method'], string][];

/** The figures of one coat, everything decided of it, and what it takes. What the sheet does not allow is said before it is saved. */
export function EditLayer({
  revision,
  layer,
  first,
  locked,
  area,
  onSave,
  onRemove,
  onRepeat,
  onBack,
}: {
  revision: SheetRevision | undefined;
  layer: Layer;
  /** Nothing of this build-up lies beneath it. */
  first: boolean;
  locked: boolean;
  /** Of the zone it goes onto; null where it is for none. */
  area: AreaOf | null;
  onSave: (layer: Layer) => void;
  onRemove: () => void;
  onRepeat: () => void;
  onBack: () => void;
}) {
  const edit = useCoatDraft(layer, revision);
  if (!edit.picked)
    return <FormProblem message="The sheet of this coat is not here. Take the coat out, or bring the sheet back." />;
  const form = coatForm({ picked: edit.picked, setDraft: edit.setDraft, draft: edit.draft, sheets: edit.sheets });

  return (
    <section className="flex flex-col gap-3" aria-labelledby="edit-layer">
      <h2 id="edit-layer" className="ruled pb-1">
        {form.sheet.name}
      </h2>
      {area && <Figures area={area} layer={edit.draft} sheet={form.sheet} />}
      {locked && <p className="quiet">A coat of it is on: changes here show in the plan, not in the record.</p>}
      {!locked && (
        <SelectField
          label="Product"
          options={productOptions(form.others, form.picked)}
          value={form.picked.id}
          onPick={(id) =>
            edit.setDraft(onProduct(edit.draft, form.others.find((s) => s.current.id === id)?.current ?? form.picked))
          }
        />
      )}
      <FilmFields edit={edit} form={form} first={first} />
      <Choice
        label="Put on by"
        options={METHODS}
        value={edit.draft.method}
        onPick={(method) =>
          form.set({
            method,
            tip: method === 'roller' ? edit.draft.tip : undefined,
            ...(edit.draft.loss === USUAL_LOSS[edit.draft.method] ? { loss: USUAL_LOSS[method] } : {}),
          })
        }
      />
      <BondFields first={first} edit={edit} form={form} />
      <CoatColourFields form={form} edit={edit} />
      {form.warnings.map((w) => (
        <p key={w} className="border-l-4 border-warning bg-base-200 px-3 py-1">
          {w}
        </p>
      ))}
      <FormProblem message={form.bad ? 'A figure is missing or cannot be read. Type it again.' : null} />
      <LayerButtons onRepeat={onRepeat} locked={locked} onRemove={onRemove} />
      <SaveBar form={form} onSave={onSave} edit={edit} onBack={onBack} />
    </section>
  );
}

function LayerButtons({ onRepeat, locked, onRemove }: { onRepeat: () => void; locked: boolean; onRemove: () => void }) {
  return (
    <div className="flex flex-wrap gap-3">
      <button type="button" className="btn" onClick={onRepeat}>
        One more of it
      </button>
      <button type="button" className="btn btn-ghost text-error" disabled={locked} onClick={onRemove}>
        Take out
      </button>
    </div>
  );
}

function SaveBar({
  form,
  onSave,
  edit,
  onBack,
}: {
  form: ReturnType<typeof coatForm>;
  onSave: (layer: Layer) => void;
  edit: ReturnType<typeof useCoatDraft>;
  onBack: () => void;
}) {
  return (
    <div className="sticky bottom-[3.3rem] -mx-3 flex gap-3 border-t border-base-300 bg-base-100 px-3 py-2 lg:static lg:mx-0 lg:border-0 lg:px-0">
      <button type="button" className="btn btn-primary" disabled={form.bad} onClick={() => onSave(edit.draft)}>
        Save coat
      </button>
      <button type="button" className="btn" onClick={onBack}>
        Back
      </button>
    </div>
  );
}

/** What the coat takes, live. */
function Figures({ area, layer, sheet }: { area: AreaOf; layer: Layer; sheet: SheetBody }) {
  const { areaM2, areaShare } = area;
  const coat = { areaM2, areaShare, layer, sheet };
  const q = attempt(() => layerQuantities(coat)).value;
  if (!q) return null;
  return (
    <div>
      <p className="flex flex-wrap items-baseline gap-x-5 gap-y-0.5">
        <span>
          comb for <Fig quantity="film" value={q.wetMicron} className="text-xl" /> wet
        </span>
        <span>
          dries to <Fig quantity="film" value={layer.dftMicron} />
        </span>
        <span>
          covers <Fig quantity="spreadingRate" value={q.spreadingRateM2PerL} />
        </span>
        <span>
          takes <Fig quantity="volume" value={q.litres.likely} approx className="text-lg" />{' '}
          <span className="narrow quiet">
            (<Fig quantity="volume" value={q.litres.low} /> to <Fig quantity="volume" value={q.litres.high} />)
          </span>
        </span>
      </p>
      <div className="flex flex-wrap items-baseline gap-x-5 text-[0.95rem]">
        {q.parts.length > 1 &&
          q.parts.map((p) => (
            <span key={p.name} className="quiet">
              {p.name} <Fig quantity="volume" value={p.litres} />
            </span>
          ))}
        {q.thinnerL > 0 && (
          <span className="quiet">
            thinner <Fig quantity="volume" value={q.thinnerL} />
          </span>
        )}
        <Why working={layerWorking(coat)} />
      </div>
    </div>
  );
}

function productOptions(others: readonly { current: SheetRevision }[], picked: SheetRevision): [string, string][] {
  const row = (r: SheetRevision): [string, string] => [
    r.id,
    `${r.body.name} — ${SHEET_KIND_WORDS[r.body.kind].toLowerCase()}`,
  ];
  const list = others.map((s) => row(s.current));
  return list.some(([id]) => id === picked.id) ? list : [row(picked), ...list];
}
