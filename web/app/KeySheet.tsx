import { changeSettings, useSettings } from '../data/settings';
import { GLOSSARY } from '../parts/glossary';
import { useSpoken } from '../parts/spoken';
import { useModal } from '../parts/useModal';
import { PLACES } from './keys';

/** All keys, on a sheet. */
export function KeySheet({ onClose }: { onClose: () => void }) {
  const ref = useModal();
  const { keys } = useSettings();
  const say = useSpoken();
  const rows: [string, string][] = [
    ['0', 'the yard'],
    ...PLACES.map((p): [string, string] => [p.key, p.name]),
    ['n', 'new here: boat, zone, sheet or coat'],
    ['m', 'mix for what is selected'],
    ['w', 'why: open or close the workings'],
    ['Ctrl z', 'undo'],
    ['Ctrl y', 'do again what was undone'],
    ['?', 'this sheet'],
  ];
  return (
    <dialog ref={ref} className="modal" onClose={onClose} aria-labelledby="keys-title">
      <div className="modal-box max-w-md rounded-sm">
        <h2 id="keys-title">Keys and words</h2>
        <dl className="my-3 grid grid-cols-[5rem_1fr] gap-y-1.5">
          {rows.map(([key, what]) => (
            <div key={key} className="contents">
              <dt>
                <kbd className="kbd">{key}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        <label className="link-row gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={keys}
            onChange={(e) => changeSettings({ keys: e.target.checked })}
          />
          Single keys do this
        </label>
        <p className="text-sm quiet">They rest while you type in a field. Ctrl z and Ctrl y work in any case.</p>
        <h3 className="mt-4">Words</h3>
        <dl className="my-2">
          {Object.values(GLOSSARY).map(([term, meaning]) => (
            <div key={term} className="border-t border-base-300 py-1">
              <dt className="font-semibold">{term}</dt>
              <dd>{say(meaning)}</dd>
            </div>
          ))}
        </dl>
        <form method="dialog" className="mt-3 text-right">
          <button className="btn">Close</button>
        </form>
      </div>
    </dialog>
  );
}
