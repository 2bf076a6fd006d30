import { Camera } from 'lucide-react';
import { useState } from 'react';
import { EVIDENCE, type Evidence } from '#core/model/waterline';
import { keepPicture, scaledDown } from '../../../data/pictures';
import type { BoatView } from '../../../data/store';
import { FormProblem, QuantityField, SelectField, TextField } from '../../../parts/Field';
import { Fig } from '../../../parts/Fig';
import { usePictureAddress } from '../../../parts/Pictures';
import { EVIDENCE_WORDS } from '../../../parts/prepWords';
import { logOnBoat, withdraw } from '../../prep/usePrep';
import type { Waterline } from './useWaterline';

/** What tells where the line was, with how sure it is; and the tapes that keep it once primer hides it. */
export function EvidenceForm({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const { shape } = waterline;
  const [what, setWhat] = useState<Evidence>('stain');
  const [xM, setX] = useState<number | null>(shape.lengthM / 2);
  const [heightM, setHeight] = useState<number | null>(null);
  const [plusMinusM, setPlusMinus] = useState<number | null>(0.02);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [picture, setPicture] = useState<Blob | null>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      setPicture((await scaledDown(file)).blob);
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const save = async () => {
    if (xM === null || heightM === null || Number.isNaN(xM + heightM))
      return setProblem('Type where it is, and how high.');
    if (xM < 0 || xM > shape.lengthM) return setProblem('This place is beyond the ends of the boat. Check it.');
    const body = { what, xM, heightM, plusMinusM: plusMinusM ?? 0, text: text.trim() };
    const label = `${EVIDENCE_WORDS[what]} noted`;
    const { id } = view.boat;
    if (picture) void keepPicture({ boatId: id, stream: 'boat', streamId: id, kind: 'evidence', body }, picture, label);
    else {
      const wrong = await logOnBoat(view, { kind: 'evidence', body }, label);
      if (wrong) return setProblem(wrong);
    }
    setText('');
    setPicture(null);
    setHeight(null);
    return setProblem(null);
  };
  return (
    <>
      <SelectField
        label="What it is"
        value={what}
        options={EVIDENCE.map((e) => [e, EVIDENCE_WORDS[e]] as const)}
        onPick={setWhat}
      />
      <div className="grid grid-cols-3 gap-3">
        <QuantityField label="Forward" quantity="length" value={xM} onValue={setX} />
        <QuantityField label="Height" quantity="width" value={heightM} onValue={setHeight} />
        <QuantityField label="±" quantity="width" value={plusMinusM} onValue={setPlusMinus} />
      </div>
      <TextField
        label="In words"
        value={text}
        onChange={(e) => setText(e.target.value)}
        hint="Over the drawn waterline; a reference tape: where it is stuck"
      />
      <FormProblem message={problem} />
      <label className="btn">
        <Camera size={18} aria-hidden="true" /> {picture ? 'Picture taken: take another' : 'Picture of it'}
        <input type="file" accept="image/*" className="sr-only" onChange={(e) => void take(e.target.files?.[0])} />
      </label>
      <button type="button" className="btn btn-primary" onClick={() => void save()}>
        Note it
      </button>
    </>
  );
}

function EvidencePicture({ id, hash }: { id: string; hash: string }) {
  const { href, waits } = usePictureAddress(id, hash);
  if (!href) return null;
  return (
    <a className="link-row ml-3 underline underline-offset-4" href={href} target="_blank" rel="noreferrer">
      picture{waits ? ', to be sent' : ''}
    </a>
  );
}

export function EvidenceList({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const { log, line } = waterline;
  return (
    <ul className="sheet-rule">
      {log.evidence.map((e) => {
        const lineM = line?.heightM(e.xM) ?? null;
        const off = lineM === null ? null : lineM - e.heightM;
        return (
          <li key={e.id} className="flex flex-wrap items-center gap-x-4">
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{EVIDENCE_WORDS[e.what]}</span> at <Fig quantity="length" value={e.xM} />:{' '}
              <Fig quantity="width" value={e.heightM} /> ± <Fig quantity="width" value={e.plusMinusM} />
              {e.text && <span className="quiet">, {e.text}</span>}
              {e.hash !== undefined && <EvidencePicture id={e.id} hash={e.hash} />}
              {off !== null && (
                <span className={`block text-sm ${Math.abs(off) > e.plusMinusM ? 'font-semibold' : 'quiet'}`}>
                  the line is <Fig quantity="width" value={Math.abs(off)} /> {off > 0 ? 'over' : 'under'} it
                  {Math.abs(off) > e.plusMinusM ? ', more than its ±' : ', within its ±'}
                </span>
              )}
            </span>
            <button
              type="button"
              className="link-row underline underline-offset-4"
              onClick={() => {
                const entry = view.entries.find((x) => x.id === e.id);
                if (entry) void withdraw(entry, 'Taken back');
              }}
            >
              Take back
            </button>
          </li>
        );
      })}
    </ul>
  );
}
