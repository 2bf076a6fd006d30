import { useState } from 'react';
import { BAND_MODES, raiseAlongSkinM } from '#core/waterline/skin';
import type { LineSetBody } from '#core/model/waterline';
import { attempt } from '../../../parts/attempt';
import { Choice, FormProblem, QuantityField, TextField } from '../../../parts/Field';
import { Fig } from '../../../parts/Fig';
import { newLine, type Waterline } from './useWaterline';

const BAND_WORDS = { height: 'even height', width: 'even width' } as const;

/** Greatest σ that the slider gives a mark, m. */
const MOST_NOISE_M = 0.03;

/** Candidate lines, and how the one that is looked at is faired, raised and banded. */
export function LinePanel({ waterline }: { waterline: Waterline }) {
  const { lines, line, setPicked, setLine } = waterline;
  if (!line)
    return (
      <p>
        No line yet.{' '}
        <button
          type="button"
          className="link-row underline underline-offset-4"
          onClick={() => void setLine({ ...newLine('Designed line'), levelM: 0, chosen: true }, 'Line begun')}
        >
          Begin with the drawn waterline
        </button>
      </p>
    );
  return (
    <>
      <ul className="sheet-rule" aria-label="Candidate lines">
        {lines.map((l) => (
          <li key={l.line.lineId} className="flex flex-wrap items-center gap-x-4">
            <button
              type="button"
              className={`link-row min-w-0 flex-1 text-left underline underline-offset-4 ${l === line ? 'font-semibold' : ''}`}
              aria-current={l === line}
              onClick={() => setPicked(l.line.lineId)}
            >
              {l.line.name}
            </button>
            <span className="quiet">
              {l.line.chosen ? 'painted to' : ''} <Against line={l} other={line} lengthM={waterline.shape.lengthM} />
            </span>
          </li>
        ))}
      </ul>
      <LineSettings key={line.line.lineId} waterline={waterline} />
    </>
  );
}

/** How another candidate differs from the one that is looked at, fore, amidships and aft. */
function Against({
  line,
  other,
  lengthM,
}: {
  line: NonNullable<Waterline['line']>;
  other: NonNullable<Waterline['line']>;
  lengthM: number;
}) {
  if (line === other) return null;
  const at = (l: typeof line) => [0.1, 0.5, 0.9].map((t) => l.heightM(t * lengthM));
  const diffs = at(line).flatMap((h, i) => {
    const o = at(other)[i];
    return h === null || o == null ? [] : [h - o];
  });
  if (diffs.length === 0) return null;
  const [low, high] = [Math.min(...diffs), Math.max(...diffs)];
  // Where the two cross, both are told with their sign.
  const word = low >= 0 ? 'higher' : high <= 0 ? 'lower' : 'against it';
  const said = (m: number) => <Fig quantity="width" value={word === 'against it' ? m : Math.abs(m)} />;
  return (
    <>
      {said(word === 'lower' ? high : low)} to {said(word === 'lower' ? low : high)} {word}
    </>
  );
}

function LineSettings({ waterline }: { waterline: Waterline }) {
  const { line, held, setHeld, setLine } = waterline;
  const own = (held ?? line?.line) as LineSetBody;
  const [name, setName] = useState(own.name);
  const [problem, setProblem] = useState<string | null>(null);
  const set = async (change: Partial<LineSetBody>, label: string) =>
    setProblem(await setLine({ ...own, ...change }, label));
  const level = own.levelM !== null;
  return (
    <>
      <div
        onBlur={() => name.trim() !== '' && name.trim() !== own.name && void set({ name: name.trim() }, 'Line renamed')}
      >
        <TextField label="Name" value={name} onChange={(e) => setName(e.target.value)} maxLength={80} />
      </div>
      <Choice
        label="It runs"
        value={level ? 'level' : 'marks'}
        options={[
          ['marks', 'through its marks'],
          ['level', 'level'],
        ]}
        onPick={(v) =>
          void set({ levelM: v === 'level' ? 0 : null }, v === 'level' ? 'Line level' : 'Line through its marks')
        }
      />
      {!level && (
        <Smoothness
          own={own}
          sigmaM={line?.faired?.sigmaM ?? 0}
          roughness={line?.faired?.roughness ?? null}
          onHold={setHeld}
          onSet={(noiseM) => void set({ noiseM }, 'Line faired')}
        />
      )}
      <Held
        key={`raise${String(line?.line.raiseM)}`}
        label="Raised by"
        value={own.raiseM}
        onDone={(raiseM) => void set({ raiseM }, 'Line raised')}
        hint="Below zero: lowered"
      />
      <AlongSkin waterline={waterline} />
      <div className="grid items-end gap-3 sm:grid-cols-2">
        <Held
          key={`band${String(line?.line.bandM)}`}
          label="Boot-top over it"
          value={own.bandM}
          onDone={(bandM) => void set({ bandM }, 'Boot-top set')}
        />
        <Choice
          label="Boot-top of"
          value={own.bandMode}
          options={BAND_MODES.map((m) => [m, BAND_WORDS[m]] as const)}
          onPick={(bandMode) => void set({ bandMode }, 'Boot-top set')}
        />
      </div>
      <FormProblem message={problem} />
      <p className="flex flex-wrap gap-x-5">
        <button
          type="button"
          className="btn"
          onClick={() => void set({ chosen: !own.chosen }, own.chosen ? 'Line no longer chosen' : 'Line chosen')}
        >
          {own.chosen ? 'Not painted to after all' : 'Paint to this line'}
        </button>
        <button
          type="button"
          className="link-row underline underline-offset-4"
          onClick={() => void set({ removed: true }, 'Line removed')}
        >
          Remove the line
        </button>
      </p>
    </>
  );
}

/** A figure that is kept when its field is left. */
function Held({
  label,
  value,
  onDone,
  hint,
}: {
  label: string;
  value: number;
  onDone: (m: number) => void;
  hint?: string;
}) {
  const [m, setM] = useState<number | null>(value);
  return (
    <div onBlur={() => m !== null && !Number.isNaN(m) && Math.abs(m - value) > 1e-9 && onDone(m)}>
      <QuantityField label={label} quantity="width" value={m} onValue={setM} {...(hint ? { hint } : {})} />
    </div>
  );
}

/** How far off a mark may be: none goes through every mark, much is a straight line; by itself it follows the marks. */
function Smoothness({
  own,
  sigmaM,
  roughness,
  onHold,
  onSet,
}: {
  own: LineSetBody;
  sigmaM: number;
  roughness: number | null;
  onHold: (line: LineSetBody) => void;
  onSet: (noiseM: number | null) => void;
}) {
  const value = own.noiseM ?? Math.min(MOST_NOISE_M, sigmaM);
  return (
    <div>
      <label className="lab" htmlFor="smooth">
        Smoothness: how far off a mark may be
      </label>
      <div className="flex items-center gap-3">
        <input
          id="smooth"
          type="range"
          className="range"
          min="0"
          max={MOST_NOISE_M}
          step="0.0005"
          value={value}
          onChange={(e) => onHold({ ...own, noiseM: Number(e.target.value) })}
          onPointerUp={() => onSet(own.noiseM)}
          onKeyUp={() => onSet(own.noiseM)}
        />
        <span className="whitespace-nowrap text-right">
          <Fig quantity="width" value={value} className="text-xl" />
        </span>
      </div>
      <p className="flex flex-wrap gap-x-4 text-sm quiet">
        {own.noiseM === null ? (
          'Found from the marks themselves'
        ) : (
          <button type="button" className="link-row underline underline-offset-4" onClick={() => onSet(null)}>
            Find it from the marks
          </button>
        )}
        {roughness !== null && (
          <span>{roughness < 1e-9 ? 'a straight line' : `roughness ${roughness.toPrecision(2)} per m`}</span>
        )}
      </p>
    </div>
  );
}

/** What the raise comes to along the skin, least and most, and the tape widths that show. */
function AlongSkin({ waterline }: { waterline: Waterline }) {
  const { table, line } = waterline;
  const raiseM = line?.line.raiseM ?? 0;
  const flares = table.flatMap((r) => (r.flareDeg === null ? [] : [r.flareDeg]));
  const widths = table.flatMap((r) => (r.bandWidthM === null ? [] : [r.bandWidthM]));
  const along = flares.map((flareDeg) => attempt(() => raiseAlongSkinM({ raiseM, flareDeg })));
  const moves = along.flatMap((a) => (a.value === null ? [] : [a.value]));
  const away = along.find((a) => a.problem !== null)?.problem ?? null;
  return (
    <div className="text-sm">
      {raiseM !== 0 && moves.length > 0 && (
        <p>
          Along the skin that is <Fig quantity="width" value={Math.min(...moves)} /> to{' '}
          <Fig quantity="width" value={Math.max(...moves)} />.
        </p>
      )}
      {away && raiseM !== 0 && <p className="border-l-4 border-warning pl-3">{away}</p>}
      {widths.length > 0 && (
        <p>
          Tape for the boot-top: <Fig quantity="width" value={Math.min(...widths)} /> to{' '}
          <Fig quantity="width" value={Math.max(...widths)} /> wide.
        </p>
      )}
    </div>
  );
}
