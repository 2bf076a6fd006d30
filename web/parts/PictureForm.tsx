import { Camera } from 'lucide-react';
import { useState } from 'react';
import { now } from '../data/now';
import { keepPicture, scaledDown } from '../data/pictures';
import { FormProblem, TextField } from './Field';

/** A picture from the phone's camera, or a file: scaled down, kept on the device until it is sent. */
export function PictureForm({
  boatId,
  of,
  at,
  step,
  onDone,
}: {
  boatId: string;
  /** The coat or zone that it shows. */
  of: { stream: 'coat' | 'zone'; streamId: string };
  /** When it was; left out: now. */
  at?: number | undefined;
  /** The step of a zone's list that it shows. */
  step?: string;
  onDone: () => void;
}) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const take = async (file: File | undefined) => {
    // A camera that was refused, or closed, gives no file: nothing happens.
    if (!file) return;
    setBusy(true);
    setProblem(null);
    try {
      const { blob, widthPx, heightPx } = await scaledDown(file);
      const body = { widthPx, heightPx, text: text.trim(), ...(step === undefined ? {} : { step }) };
      void keepPicture({ boatId, ...of, kind: 'picture', occurredAt: at ?? now(), body }, blob, 'Picture kept');
      onDone();
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="flex flex-col gap-3">
      <TextField label="What it shows" value={text} onChange={(e) => setText(e.target.value)} hint="Optional" />
      <FormProblem message={problem} />
      <label className="btn btn-primary h-14 text-lg">
        <Camera size={22} aria-hidden="true" /> {busy ? 'Scaling down…' : 'Take or choose a picture'}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          disabled={busy}
          onChange={(e) => void take(e.target.files?.[0])}
        />
      </label>
      <p className="text-sm quiet">
        If the camera is refused, allow it for this page in the browser, or choose a file. It is kept with the boat’s
        backup.
      </p>
    </div>
  );
}
