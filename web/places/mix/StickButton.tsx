import { Printer } from 'lucide-react';
import { useState } from 'react';
import { stickMarks } from '#core/mix/stick';
import { systemFor, formatQuantity } from '#core/units/format';
import { useSettings } from '../../data/settings';
import { attempt } from '../../parts/attempt';
import { saveBlob } from '../../parts/saveText';
import { potOf } from './PourList';
import type { Mix } from './useMix';

/** The mixing stick of this batch and pot as a page at true scale; the writer comes only now. */
export function StickButton({ mix }: { mix: Mix }) {
  const { units } = useSettings();
  const [problem, setProblem] = useState<string | null>(null);
  const pot = potOf(mix);
  if (!pot || !mix.pouring) return null;
  const { steps } = mix.pouring;
  const print = async () => {
    const made = attempt(() =>
      stickMarks({ pot, pours: steps.map((s, i) => ({ name: i === 0 ? s.name : `+ ${s.name}`, litres: s.litres })) }),
    );
    setProblem(made.problem);
    if (!made.value) return;
    const [{ pdfOf, PAGE_FONT }, { stickPage }] = await Promise.all([import('../../parts/pdf'), import('./stick')]);
    const page = stickPage({
      title: `Mixing stick, ${mix.sheet.name}`,
      note: `${formatQuantity('volume', mix.pouring?.body.totalL ?? 0, units)} in ${pot.name}.`,
      marks: made.value,
      paper: systemFor(units, 'length') === 'us' ? 'LETTER' : 'A4',
      font: PAGE_FONT,
    });
    saveBlob(`Mixing stick ${mix.sheet.name}.pdf`, await pdfOf(page));
  };
  return (
    <>
      <button
        type="button"
        className="link-row gap-1 text-sm underline underline-offset-4"
        onClick={() => void print().catch(() => setProblem('The page could not be made just now. Try again.'))}
      >
        <Printer size={16} aria-hidden="true" /> Mixing stick
      </button>
      {problem && (
        <p role="alert" className="basis-full border-l-4 border-error pl-3">
          {problem}
        </p>
      )}
    </>
  );
}
