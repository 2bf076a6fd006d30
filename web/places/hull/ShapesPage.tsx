import { Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import {
  COUNTED_FIGURES,
  SHAPE_FIGURES,
  SHAPE_KINDS,
  shapeArea,
  sumShapes,
  type ShapeFigure,
  type ShapeKind,
} from '#core/hull/shapes';
import type { NamedShape } from '#core/model/area';
import type { SurfaceRow } from '#contracts/rows/boat';
import { useView } from '../../app/BoatShell';
import { Differences } from '../../parts/Differences';
import { NotFound } from '../../app/PlaceError';
import { useSubmit } from '../../data/useSubmit';
import { FormProblem, QuantityField, SelectField, TextField } from '../../parts/Field';
import { attempt } from '../../parts/attempt';
import { Fig } from '../../parts/Fig';
import { optionsOf } from '../../parts/form';
import { SHAPE_WORDS } from '../../parts/choiceWords';
import { shareWords } from '../../parts/words';

export function ShapesPage() {
  const view = useView();
  const { surfaceId } = useParams();
  const surface = view.surfaces.find((s) => s.id === surfaceId);
  if (!surface) return <NotFound what="zone" />;
  return <Shapes key={surface.id} surface={surface} />;
}

type Figures = Record<string, number | null>;

/** A shape while it is typed: its figures may be missing still. */
interface Draft extends Omit<NamedShape, 'figure' | 'count'> {
  kind: ShapeKind;
  figures: Figures;
  count: number | null;
}

/** A zone as a sum of plain shapes, some of them taken off. */
function Shapes({ surface }: { surface: SurfaceRow }) {
  const form = useShapes(surface);

  return (
    <div className="flex max-w-4xl min-w-0 flex-col gap-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">Shapes of {surface.name}</h1>
        <Link to={form.zone} className="link-row underline underline-offset-4">
          Back to the zone
        </Link>
        <p className="ml-auto text-2xl">
          {form.sum.value ? (
            <>
              <Fig quantity="area" value={form.sum.value.areaM2} />{' '}
              <span className="narrow text-lg quiet">± {shareWords(form.sum.value.share)}</span>
            </>
          ) : null}
        </p>
      </div>
      {form.shapes.length === 0 && (
        <p className="max-w-prose">
          Take the zone for a few plain shapes: the sides of a locker as a box, a rudder as a foil, frames with both
          faces and the edge. Take off what is not painted.
        </p>
      )}
      <ol className="sheet-rule">
        {form.shapes.map((s, i) => (
          <ShapeItem s={s} form={form} i={i} key={s.id} />
        ))}
      </ol>
      <FormProblem message={form.failure?.message ?? (form.shapes.length > 0 ? form.sum.problem : null)} />
      {form.theirs && <Differences mine={{ area: surface.area }} theirs={form.theirs} />}
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn" onClick={form.add}>
          <Plus size={18} aria-hidden="true" /> Shape
        </button>
        <button
          type="button"
          className="btn btn-primary"
          disabled={form.sending || !form.sum.value}
          onClick={() => void form.onSave()}
        >
          {form.sending ? 'Saving…' : form.theirs ? 'Keep what stands here' : 'Save and use it'}
        </button>
      </div>
    </div>
  );
}

function ShapeItem({ s, form, i }: { s: Draft; form: ReturnType<typeof useShapes>; i: number }) {
  return (
    <li className="py-2">
      <ShapeFigures s={s} form={form} i={i} />
      <ShapeRest s={s} form={form} i={i} />
    </li>
  );
}

function ShapeFigures({ s, form, i }: { s: Draft; form: ReturnType<typeof useShapes>; i: number }) {
  return (
    <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
      <TextField
        label="Name"
        value={s.name}
        onChange={(e) => form.change(s.id, { name: e.target.value })}
        placeholder={`shape ${i + 1}`}
      />
      <SelectField
        label="Shape"
        options={SHAPE_KINDS.map((k) => [k, SHAPE_WORDS[k]] as const)}
        value={s.kind}
        onPick={(kind) => form.change(s.id, { kind })}
      />
      {SHAPE_FIGURES[s.kind].map(([key, words]) =>
        key === 'lids' ? (
          <SelectField
            key={key}
            label="Its lid"
            options={optionsOf({ '0': 'not painted', '1': 'painted too' })}
            value={String(s.figures.lids ?? 0)}
            onPick={(v) => form.change(s.id, { figures: { ...s.figures, lids: Number(v) } })}
          />
        ) : key === 'ends' ? (
          <SelectField
            key={key}
            label="Ends painted"
            options={optionsOf({ '0': 'none', '1': 'one', '2': 'both' })}
            value={String(s.figures.ends ?? 0)}
            onPick={(v) => form.change(s.id, { figures: { ...s.figures, ends: Number(v) } })}
          />
        ) : (
          <QuantityField
            key={key}
            label={words.charAt(0).toUpperCase() + words.slice(1)}
            quantity="length"
            value={s.figures[key] ?? null}
            onValue={(v) => form.change(s.id, { figures: { ...s.figures, [key]: v } })}
          />
        ),
      )}
    </div>
  );
}

function ShapeRest({ s, form, i }: { s: Draft; form: ReturnType<typeof useShapes>; i: number }) {
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3">
      <div className="w-20">
        <TextField
          label="How many"
          inputMode="numeric"
          value={s.count ?? ''}
          onChange={(e) => form.change(s.id, { count: e.target.value.trim() === '' ? null : Number(e.target.value) })}
        />
      </div>
      <div className="w-24">
        <QuantityField
          label="±"
          quantity="percent"
          value={s.share}
          onValue={(v) => form.change(s.id, { share: v ?? Number.NaN })}
        />
      </div>
      <div className="w-40">
        <TextField
          label="Measured with"
          value={s.group ?? ''}
          onChange={(e) => form.change(s.id, { group: e.target.value || null })}
          placeholder="on its own"
          title="Shapes that name the same measuring share its error"
        />
      </div>
      <label className="min-h-11 flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={s.deduct}
          onChange={(e) => form.change(s.id, { deduct: e.target.checked })}
        />{' '}
        take off
      </label>
      <p className="min-h-11 ml-auto flex items-center text-xl">
        {s.deduct && form.whole[i] ? '−' : ''}
        {form.whole[i] ? <Fig quantity="area" value={areaOf(form.whole[i])} /> : <span className="quiet">·</span>}
      </p>
      <button
        type="button"
        className="btn btn-ghost btn-square"
        aria-label={`Remove shape ${i + 1}`}
        onClick={() => form.setShapes(form.shapes.filter((o) => o.id !== s.id))}
      >
        <Trash2 size={18} aria-hidden="true" />
      </button>
    </div>
  );
}

/** Shapes as they are typed, their sum, and how they are kept. */
function useShapes(surface: SurfaceRow) {
  const navigate = useNavigate();
  const zone = `/boats/${surface.boatId}/hull/${surface.id}`;
  const [shapes, setShapes] = useState<Draft[]>(() => (surface.area.shapes ?? []).map(draftOf));
  const { failure, theirs, sending, submit } = useSubmit();
  const change = (id: string, by: Partial<Draft>) => setShapes(shapes.map((s) => (s.id === id ? { ...s, ...by } : s)));
  const add = () =>
    setShapes([
      ...shapes,
      { id: uuid(), name: '', kind: 'rectangle', figures: {}, count: 1, deduct: false, share: 0.05, group: null },
    ]);
  const whole = useMemo(() => shapes.map(shapeOf), [shapes]);
  const sum = useMemo(() => {
    const missing = whole.findIndex((s) => s === null);
    if (missing >= 0)
      return { value: null, problem: `Shape ${missing + 1} lacks a figure. Type it, or take the shape out.` };
    return attempt(() => sumShapes(whole as NamedShape[]));
  }, [whole]);
  const onSave = async () => {
    const area = { ...surface.area, method: 'shapes' as const, shapes: whole as NamedShape[] };
    if (
      await submit(
        { kind: 'surface', row: { ...surface, area, version: theirs ? theirs.version : surface.version } },
        `${surface.name} by shapes`,
      )
    )
      void navigate(zone);
  };
  return { zone, sum, shapes, change, whole, setShapes, failure, theirs, add, sending, onSave };
}

function areaOf(shape: NamedShape): number {
  return attempt(() => shapeArea(shape.figure) * shape.count).value ?? Number.NaN;
}

function draftOf({ figure, ...shape }: NamedShape): Draft {
  const { kind, ...figures } = figure;
  return { ...shape, kind, figures };
}

/** Null while a figure is missing or cannot be read. */
function shapeOf({ kind, figures, ...draft }: Draft): NamedShape | null {
  const needed = SHAPE_FIGURES[kind].map(
    ([key]) => [key, figures[key] ?? (COUNTED_FIGURES.includes(key) ? 0 : null)] as const,
  );
  const complete =
    needed.every(([, v]) => v !== null && Number.isFinite(v)) &&
    draft.count !== null &&
    Number.isInteger(draft.count) &&
    draft.count > 0 &&
    Number.isFinite(draft.share);
  return complete
    ? { ...draft, count: draft.count as number, figure: { kind, ...Object.fromEntries(needed) } as ShapeFigure }
    : null;
}
