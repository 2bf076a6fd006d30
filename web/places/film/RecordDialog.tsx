import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { RecordKind, ZoneRecord } from '#core/system/stack';
import { now } from '../../data/now';
import { settings } from '../../data/settings';
import { TextField } from '../../parts/Field';
import { RECORD_WORDS } from '../../parts/choiceWords';
import { useModal } from '../../parts/useModal';

const ASKS: Record<RecordKind, { title: string; how: string; hint: string }> = {
  testPatch: {
    title: 'Test patch',
    how: 'Put a hand’s breadth of the new coat on the old one, and look at it next day: it must neither lift, wrinkle nor stay soft.',
    hint: 'Where, how long ago, what it did',
  },
  adhesionTest: {
    title: 'Adhesion test',
    how: 'Cut a cross through the old coating down to the substrate, press tape on and pull it off: the squares must stay.',
    hint: 'Where, and the class it came to',
  },
  moisture: {
    title: 'Moisture measured',
    how: 'Measure in several places, away from the edges, with the meter set to the kind of wood or laminate.',
    hint: 'Where, with which meter, and what it read',
  },
  flakeBack: {
    title: 'Backs of flakes',
    how: 'Look at the back of what comes off. Rust on it means that all of it comes off.',
    hint: 'What you saw',
  },
};

/** Put down what was tried before anything goes over an old coating. */
export function RecordDialog({
  kind,
  onSave,
  onClose,
}: {
  kind: RecordKind;
  onSave: (record: ZoneRecord) => void;
  onClose: () => void;
}) {
  const dialog = useModal();
  const [note, setNote] = useState('');
  const ask = ASKS[kind];
  return (
    <dialog ref={dialog} className="modal" onClose={onClose} aria-labelledby="record-title">
      <div className="modal-box rounded-sm">
        <h2 id="record-title">{ask.title}</h2>
        <p className="my-2">{ask.how}</p>
        <TextField label="What was found" value={note} onChange={(e) => setNote(e.target.value)} hint={ask.hint} />
        <div className="modal-action">
          <button type="button" className="btn" onClick={() => dialog.current?.close()}>
            Back
          </button>
          <button
            type="button"
            className="btn btn-primary"
            disabled={note.trim() === ''}
            onClick={() => onSave({ id: uuid(), kind, at: now(), painter: settings().painter, note: note.trim() })}
          >
            {RECORD_WORDS[kind]}
          </button>
        </div>
      </div>
    </dialog>
  );
}
