import { Volume2 } from 'lucide-react';
import { MARK_SIDES, type MarkSide } from '#core/model/waterline';
import { formatQuantity } from '#core/units/format';
import type { LineStation } from '#core/waterline/lineTable';
import { setOffKey } from '#core/waterline/waterlineLog';
import { useState } from 'react';
import { useSettings } from '../../../data/settings';
import type { BoatView } from '../../../data/store';
import { Choice, QuantityField } from '../../../parts/Field';
import { Fig } from '../../../parts/Fig';
import { SIDE_WORDS } from '../../../parts/prepWords';
import { logOnBoat, TAP, withdraw } from '../../prep/usePrep';
import type { Waterline } from './useWaterline';

/** The line set off station by station, on either side: read out, ticked, and where it leaves the hull said so. */
export function SetOff({ view, waterline }: { view: BoatView; waterline: Waterline }) {
  const { table, stepM, setStepM, line, log } = waterline;
  const { units } = useSettings();
  const [side, setSide] = useState<MarkSide>('starboard');
  if (!line) return <p>Begin a line first.</p>;
  const lineId = line.line.lineId;
  const doneOf = (no: number) => log.setOff.get(setOffKey({ lineId, no, side }));
  const tick = (no: number) => {
    const id = doneOf(no);
    const entry = view.entries.find((e) => e.id === id);
    if (entry) void withdraw(entry, `Station ${no}: not set off`);
    else void logOnBoat(view, { kind: 'setOff', body: { lineId, no, side } }, `Station ${no} set off`, TAP);
  };
  const say = (row: LineStation) => {
    if (row.belowRailM === null) return;
    speechSynthesis.speak(
      new SpeechSynthesisUtterance(
        `Station ${row.no}, ${formatQuantity('width', row.belowRailM, units)} below the rail`,
      ),
    );
  };
  const count = table.filter((r) => doneOf(r.no)).length;
  return (
    <>
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          label="Side"
          value={side}
          options={MARK_SIDES.map((s) => [s, SIDE_WORDS[s]] as const)}
          onPick={setSide}
        />
        <span className="w-40">
          <QuantityField
            label="From station to station"
            quantity="length"
            value={stepM}
            onValue={(m) => m !== null && m > 0.05 && setStepM(m)}
          />
        </span>
      </div>
      <p className="quiet">
        {count} of {table.length} set off. Below the rail, and above the ground where it is known how she stands.
      </p>
      <ol className="sheet-rule max-h-[32rem] overflow-y-auto" aria-label="Stations to set off">
        {table.map((row) => (
          <Station
            key={row.no}
            row={row}
            side={side}
            done={doneOf(row.no) !== undefined}
            onTick={() => tick(row.no)}
            onSay={() => say(row)}
          />
        ))}
      </ol>
    </>
  );
}

function Station({
  row,
  side,
  done,
  onTick,
  onSay,
}: {
  row: LineStation;
  side: MarkSide;
  done: boolean;
  onTick: () => void;
  onSay: () => void;
}) {
  return (
    <li className="flex items-center gap-3">
      <label className="link-row min-w-0 flex-1 gap-3">
        <input type="checkbox" className="checkbox" disabled={row.heightM === null} checked={done} onChange={onTick} />
        <span className="fig w-8 text-lg">{row.no}</span>
        <Fig quantity="length" value={row.xM} className="w-16 quiet" />
        {row.belowRailM === null ? (
          <span className="quiet">the line leaves the hull here</span>
        ) : (
          <>
            <Fig quantity="width" value={row.belowRailM} className="text-lg" />
            <Ground row={row} side={side} />
          </>
        )}
      </label>
      {row.belowRailM !== null && 'speechSynthesis' in window && (
        <button
          type="button"
          className="btn btn-ghost btn-square"
          aria-label={`Read out station ${row.no}`}
          onClick={onSay}
        >
          <Volume2 size={18} aria-hidden="true" />
        </button>
      )}
    </li>
  );
}

function Ground({ row, side }: { row: LineStation; side: MarkSide }) {
  const m = side === 'port' ? row.groundPortM : row.groundStarboardM;
  if (m === null) return null;
  return (
    <span className="quiet">
      <Fig quantity="length" value={m} digits={3} /> up
    </span>
  );
}
