import type { StartAdvice } from '#core/air/lastStart';
import type { Conditions, ConditionVerdict, LimitsInForce } from '#core/air/conditions';
import type { UnitChoice } from '#core/units/format';
import { useSettings } from '../data/settings';
import { AirScales } from './AirScales';
import { Fig } from './Fig';
import { breakWords, timeWords } from './words';

/** Dew point and spread at once, the verdict of now, and whether it holds until touch dry. */
export function Verdict({
  verdict,
  advice,
  measured,
  at,
  zone,
  simulated,
  past = false,
  scales,
}: {
  verdict: ConditionVerdict | null;
  advice: StartAdvice | null;
  measured: boolean;
  at: number;
  zone: string;
  simulated: boolean;
  /** Of a moment that is over. */
  past?: boolean;
  /** What the verdict is of, to be drawn against its limits. */
  scales?: { readonly conditions: Conditions; readonly limits: LimitsInForce } | null;
}) {
  const { units } = useSettings();
  return (
    <div className="sheet-rule" role="status" aria-label="Verdict">
      {verdict && (
        <div className="flex flex-wrap items-baseline gap-x-6 py-2">
          <span>
            dew point <Fig quantity="temperature" value={verdict.dewPointC} approx={!measured} className="text-2xl" />
          </span>
          <span>
            spread{' '}
            <Fig quantity="temperatureDifference" value={verdict.spreadC} approx={!measured} className="text-2xl" />
          </span>
          <span className="text-sm quiet">
            {measured
              ? 'as you read it'
              : past
                ? 'from the weather then, nothing measured'
                : 'from the forecast, nothing measured yet'}
          </span>
        </div>
      )}
      {verdict && scales && <AirScales {...scales} verdict={verdict} measured={measured} />}
      {verdict && (
        <p className={`py-2 text-lg ${verdict.ok ? '' : 'text-error'}`}>
          <strong>
            {past ? 'Then' : 'Now'}:{' '}
            {verdict.breaks.length === 0
              ? 'within the limits'
              : `${verdict.ok ? 'caution, ' : ''}${verdict.breaks.map((b) => breakWords(b, units)).join('; ')}`}
          </strong>
        </p>
      )}
      {advice && <UntilDry advice={advice} at={at} zone={zone} past={past} simulated={simulated} />}
    </div>
  );
}

/** Whether it holds until touch dry, and when it can be started. */
function UntilDry({
  advice,
  at,
  zone,
  past,
  simulated,
}: {
  advice: StartAdvice;
  at: number;
  zone: string;
  past: boolean;
  simulated: boolean;
}) {
  const { units } = useSettings();
  const when = (t: number) => timeWords(t, at, zone);
  return (
    <div className="py-2">
      <p className={`text-lg ${advice.nowHolds === false ? 'text-error' : ''}`}>
        <strong>
          Until touch dry:{' '}
          {advice.nowHolds === null
            ? 'the forecast ends first'
            : advice.nowHolds
              ? advice.touchDryAt
                ? `holds, touch dry ${when(advice.touchDryAt)}`
                : 'holds while it goes on; the sheet has no touch-dry time'
              : advice.trouble
                ? `${breakWords(advice.trouble.break, units)} at ${when(advice.trouble.at)}${advice.touchDryAt ? `, touch dry only ${when(advice.touchDryAt)}` : ''}`
                : 'does not hold'}
        </strong>
      </p>
      {advice.caution && (
        <p>
          Caution: {breakWords(advice.caution.break, units)} at {when(advice.caution.at)}.
        </p>
      )}
      {!past && <p>{spellWords(advice, at, when, units)}</p>}
      {simulated && <p className="text-sm quiet">On weather that is simulated, not for painting by.</p>}
    </div>
  );
}

/** The hours in which it can be started. */
function spellWords(advice: StartAdvice, at: number, when: (t: number) => string, units: UnitChoice): string {
  const { firstStartAt, lastStartAt, closedBy, dayEnds, nowHolds } = advice;
  if (firstStartAt === null || lastStartAt === null)
    return 'No start in the working hours of the next day and a half holds its limits until touch dry.';
  const closes = closedBy
    ? `: then ${breakWords(closedBy.break, units)} at ${when(closedBy.at)}, before it is touch dry`
    : dayEnds
      ? ', before the working day ends'
      : '; nothing closes it in the forecast';
  if (nowHolds && firstStartAt <= at) return `Last start ${when(lastStartAt)}${closes}.`;
  return `${nowHolds ? 'In the working day good' : 'Good'} from ${when(firstStartAt)}, last start ${when(lastStartAt)}${closes}.`;
}
