import { CircleHelp } from 'lucide-react';
import type { Working } from '#core/why';
import { formatQuantity, plainNumber } from '#core/units/format';
import { useSettings } from '../data/settings';
import { useSpoken } from './spoken';
import { shareWords, sourceWords } from './words';

/** A figure's working: what went in, the formula in words, where it comes from, what matters most. */
export function Why({ working }: { working: Working }) {
  const { units } = useSettings();
  const say = useSpoken();
  const show = (value: number, quantity: Working['inputs'][number]['quantity']) =>
    quantity === 'plain'
      ? plainNumber(value, 2)
      : quantity === 'share'
        ? shareWords(value)
        : formatQuantity(quantity, value, units);
  return (
    <details data-why className="text-sm open:basis-full">
      <summary className="link-row narrow min-w-11 cursor-pointer gap-1 text-base underline decoration-1 underline-offset-4 lg:min-h-7">
        <CircleHelp size={16} aria-hidden="true" /> Why
      </summary>
      <div className="mb-2 border-l-2 border-base-300 pl-3">
        <p className="font-semibold">{say(working.what)}</p>
        <p>{say(working.formula)}</p>
        <ul className="my-1">
          {working.inputs.map((input) => (
            <li key={input.name} className="flex justify-between gap-4">
              <span>{say(input.name)}</span>
              <span className="fig">{show(input.value, input.quantity)}</span>
            </li>
          ))}
        </ul>
        <p className="quiet">{sourceWords(working.source)}</p>
        {working.mattersMost && <p>{say(working.mattersMost)}</p>}
      </div>
    </details>
  );
}
