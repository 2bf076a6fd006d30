import { useModal } from '../parts/useModal';
import { PLACES } from './keys';

/** All keys, on a sheet. */
export function KeySheet({ onClose }: { onClose: () => void }) {
  const ref = useModal();
  const rows: [string, string][] = [
    ['0', 'the yard'],
    ...PLACES.map((p): [string, string] => [p.key, p.name]),
    ['n', 'new here: boat, zone, sheet or coat'],
    ['m', 'mix for what is selected'],
    ['w', 'why: open or close the workings'],
    ['Ctrl z', 'undo'],
    ['?', 'this sheet'],
  ];
  return (
    <dialog ref={ref} className="modal" onClose={onClose} aria-labelledby="keys-title">
      <div className="modal-box max-w-md rounded-sm">
        <h2 id="keys-title">Keys</h2>
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
        <p className="text-sm quiet">Single keys rest while you type in a field.</p>
        <form method="dialog" className="mt-3 text-right">
          <button className="btn">Close</button>
        </form>
      </div>
    </dialog>
  );
}
