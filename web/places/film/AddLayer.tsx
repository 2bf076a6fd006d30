import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { v7 as uuid } from 'uuid';
import type { PaintMethod } from '#core/model/paintMethod';
import type { Layer } from '#core/model/layer';
import { layerOf } from '#core/system/mend';
import type { SheetRevision } from '#core/model/sheet';
import type { Exposure } from '#core/model/surface';
import { fitsExposure } from '#core/system/fits';
import type { JobChoices } from '#core/system/schools';
import type { SheetRow } from '#contracts/rows/sheet';
import { useSheets } from '../../data/store';
import { Choice, SelectField, TextField } from '../../parts/Field';
import { METHOD_WORDS, SHEET_KIND_WORDS } from '../../parts/words';

/** One or several coats of one product, put in at a place of the build-up. */
export function AddLayer({
  where,
  choices,
  beneath,
  exposure,
  back,
  onAdd,
  onBack,
}: {
  where: string;
  choices: JobChoices;
  /** Kind of product that lies beneath: what usually follows stands first. */ beneath: string | null;
  /** What fits it stands first. */
  exposure: Exposure;
  back: string;
  onAdd: (layers: Layer[]) => void;
  onBack: () => void;
}) {
  const { data: sheets } = useSheets();
  const usable = inSchoolOrder(
    (sheets ?? []).filter((s) => !s.withdrawn),
    choices,
    exposure,
  );
  // One that was just made for it is taken first.
  const made = useSearchParams()[0].get('sheet');
  const [sheetId, setSheetId] = useState<string | null>(made);
  const [count, setCount] = useState('1');
  const [method, setMethod] = useState<PaintMethod>(choices.method);
  const sheet =
    usable.find((s) => s.id === sheetId) ?? usable.find((s) => s.current.body.kind === beneath) ?? usable[0];
  if (!sheets) return <div className="skeleton h-40 rounded-sm" role="status" aria-label="Loading sheets" />;
  if (!sheet) return <NoSheet back={back} onBack={onBack} />;
  const { body } = sheet.current;
  const number = Math.min(12, Math.max(1, Math.round(Number(count)) || 1));
  const allowed = body.methods?.map((m) => m.method) ?? [];
  const add = () => onAdd(Array.from({ length: number }, (_, i) => newCoat(sheet.current, i, { ...choices, method })));
  return (
    <section className="flex flex-col gap-3" aria-labelledby="add-layer">
      <h2 id="add-layer" className="ruled pb-1">
        Add a coat {where}
      </h2>
      <SelectField
        label="Product"
        options={usable.map(
          (s) => [s.id, `${s.current.body.name} — ${SHEET_KIND_WORDS[s.current.body.kind].toLowerCase()}`] as const,
        )}
        value={sheet.id}
        onPick={setSheetId}
      />
      <CountAndMethod count={count} setCount={setCount} method={method} setMethod={setMethod} />
      {allowed.length > 0 && !allowed.includes(method) && (
        <p className="text-sm">
          Its sheet does not allow {METHOD_WORDS[method].toLowerCase()}: it is put down as{' '}
          {METHOD_WORDS[allowed[0] as PaintMethod].toLowerCase()}.
        </p>
      )}
      <p className="text-sm quiet">
        {number > 1 && body.colours.length > 1 ? 'Colours alternate, so that a missed patch shows. ' : ''}Film, thinner,
        loss and how it goes onto the coat beneath can be changed on each coat afterwards.
      </p>
      {body.caution && (
        <p className="border-l-4 border-base-content pl-3 text-sm">
          {body.caution} Follow the maker’s sheet and your local rules.
        </p>
      )}
      <AddButtons add={add} number={number} back={back} onBack={onBack} />
    </section>
  );
}

function CountAndMethod({
  count,
  setCount,
  method,
  setMethod,
}: {
  count: string;
  setCount: (value: string) => void;
  method: PaintMethod;
  setMethod: (value: PaintMethod) => void;
}) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <div className="w-28">
        <TextField label="Coats" inputMode="numeric" value={count} onChange={(e) => setCount(e.target.value)} />
      </div>
      <Choice
        label="Put on by"
        options={Object.entries(METHOD_WORDS) as [PaintMethod, string][]}
        value={method}
        onPick={setMethod}
      />
    </div>
  );
}

function AddButtons({
  add,
  number,
  back,
  onBack,
}: {
  add: () => void;
  number: number;
  back: string;
  onBack: () => void;
}) {
  return (
    <div className="flex flex-wrap gap-3">
      <button type="button" className="btn btn-primary" onClick={add}>
        Add {number === 1 ? 'coat' : `${number} coats`}
      </button>
      <NewSheet back={back} />
      <button type="button" className="btn" onClick={onBack}>
        Back
      </button>
    </div>
  );
}

/** What fits the exposure first, of that the job's school: one-pack finishes for one-pack people. Each keeps the order of names. */
function inSchoolOrder(sheets: SheetRow[], choices: JobChoices, exposure: Exposure): SheetRow[] {
  const wanted = (s: SheetRow) => s.current.body.parts.length > 1 === (choices.packs === 'twoPack');
  const schooled = [...sheets.filter(wanted), ...sheets.filter((s) => !wanted(s))];
  const fits = (s: SheetRow) => fitsExposure(s.current.body, exposure);
  return [...schooled.filter(fits), ...schooled.filter((s) => !fits(s))];
}

/** One of several coats of a product, as the job's choices have it. */
function newCoat(revision: SheetRevision, index: number, choices: JobChoices): Layer {
  const { body } = revision;
  const layer = layerOf(revision, uuid(), { method: choices.method });
  // Alternating colours show a missed patch where film counts; a finish keeps one.
  const alternates = body.kind === 'barrier' || body.kind === 'antifouling';
  const colour = body.colours[alternates ? index % Math.max(1, body.colours.length) : 0];
  return {
    ...layer,
    ...(colour ? { colour: colour.name, colourHex: colour.hex } : {}),
    ...(layer.method === 'roller' && choices.tip && (body.kind === 'topcoat' || body.kind === 'undercoat')
      ? { tip: true }
      : {}),
    ...(body.kind === 'primer' ? { primerFor: choices.primerFor } : {}),
  };
}

function NewSheet({ back }: { back: string }) {
  return (
    <Link to={`/sheets/new/quick?back=${encodeURIComponent(back)}`} className="btn">
      New sheet from the tin
    </Link>
  );
}

function NoSheet({ back, onBack }: { back: string; onBack: () => void }) {
  return (
    <section className="max-w-prose">
      <h2>No data sheet yet</h2>
      <p className="my-3">
        A coat needs its product’s figures. From the tin in your hand it takes about a minute; made-up sheets to try
        with are under Sheets.
      </p>
      <div className="flex flex-wrap gap-3">
        <NewSheet back={back} />
        <Link to="/sheets#library" className="btn">
          To Sheets
        </Link>
        <button type="button" className="btn" onClick={onBack}>
          Back
        </button>
      </div>
    </section>
  );
}
