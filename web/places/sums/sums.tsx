import { limitsInForce } from '#core/air/conditions';
import { dewPointC } from '#core/air/dewPoint';
import { dryFilmMicron, litresNeeded, spreadingRateM2PerL, wetFilmMicron } from '#core/film/spreading';
import { concentrateL } from '#core/mix/concentrate';
import { fillHeightsMm } from '#core/mix/fillHeights';
import { strokes } from '#core/mix/strokes';
import { NO_LIMITS } from '#core/model/sheet';
import type { QuantityName } from '#core/units/quantities';
import { attempt } from '../../parts/attempt';
import { FormProblem, QuantityField, TextField } from '../../parts/Field';
import { Fig, Line } from '../../parts/Fig';
import { partsOf } from './ratio';
import { useLinked } from './useLinked';

/** A figure of a sum, kept in the address under its key. */
function Figure({
  of,
  label,
  quantity,
  hint,
  small = false,
}: {
  of: string;
  label: string;
  quantity: QuantityName;
  hint?: string;
  /** So little that it is typed with its unit. */
  small?: boolean;
}) {
  const { figure, put } = useLinked();
  return (
    <QuantityField
      label={label}
      quantity={quantity}
      hint={hint}
      inputMode={small ? 'text' : undefined}
      value={figure(of)}
      onValue={(v) => put({ [of]: v === null || Number.isNaN(v) ? null : v })}
    />
  );
}

/** A bare count or ratio, kept as it was typed. */
function Bare({ of, label, hint }: { of: string; label: string; hint?: string }) {
  const { word, put } = useLinked();
  return (
    <TextField
      label={label}
      hint={hint}
      inputMode={of === 'ratio' ? 'text' : 'decimal'}
      value={word(of) ?? ''}
      onChange={(e) => put({ [of]: e.target.value })}
    />
  );
}

const GRID = 'grid grid-cols-2 items-start gap-3 sm:grid-cols-4';

/** Area, litres and film: whichever two are typed tell the third. */
export function Coverage() {
  const { figure } = useLinked();
  const [areaM2, litres, dftMicron, solids] = [figure('area'), figure('litres'), figure('film'), figure('solids')];
  const thinner = figure('thinner') ?? 0;
  const loss = figure('loss') ?? 0;
  const { value, problem } = attempt(() => {
    if (solids === null) return null;
    if (areaM2 !== null && dftMicron !== null)
      return { areaM2, dftMicron, litres: litresNeeded({ areaM2, dftMicron, solids, loss }) };
    if (litres !== null && dftMicron !== null)
      return { areaM2: litres * (1 - loss) * spreadingRateM2PerL({ solids, dftMicron }), dftMicron, litres };
    // 1 L over 1 m² is 1000 µm wet.
    if (litres !== null && areaM2 !== null && areaM2 > 0)
      return { areaM2, litres, dftMicron: dryFilmMicron({ wetMicron: (litres * (1 - loss) * 1000) / areaM2, solids }) };
    return null;
  });
  return (
    <>
      <div className={GRID}>
        <Figure of="solids" label="Volume solids" quantity="percent" />
        <Figure of="area" label="Area" quantity="area" />
        <Figure of="film" label="Dry film" quantity="film" />
        <Figure of="litres" label="Paint" quantity="volume" hint="Leave empty what you want to know" />
        <Figure of="thinner" label="Thinner, of the mix" quantity="percent" />
        <Figure of="loss" label="Loss" quantity="percent" />
      </div>
      <FormProblem message={problem} />
      {value && (
        <div className="sheet-rule" aria-live="polite">
          <Line label="Paint, without thinner">
            <Fig quantity="volume" value={value.litres} className="text-2xl" />
          </Line>
          <Line label="Area">
            <Fig quantity="area" value={value.areaM2} className="text-2xl" />
          </Line>
          <Line label="Dry film">
            <Fig quantity="film" value={value.dftMicron} className="text-2xl" />
          </Line>
          <Line label={thinner > 0 ? 'Wet film, thinned' : 'Wet film'}>
            <Fig
              quantity="film"
              value={wetFilmMicron({ dftMicron: value.dftMicron, solids: solids as number, thinner })}
              className="text-2xl"
            />
          </Line>
        </div>
      )}
    </>
  );
}

/** Dew point, and how far the surface is above it. */
export function Dew() {
  const { figure } = useLinked();
  const [airC, rh, surfaceC] = [figure('air'), figure('rh'), figure('surface')];
  const { value: dew, problem } = attempt(() => (airC === null || rh === null ? null : dewPointC({ airC, rh })));
  const spread = dew === null || surfaceC === null ? null : surfaceC - dew;
  return (
    <>
      <div className={GRID}>
        <Figure of="air" label="Air" quantity="temperature" />
        <Figure of="rh" label="Humidity" quantity="percent" />
        <Figure of="surface" label="Surface" quantity="temperature" />
      </div>
      <FormProblem message={problem} />
      {dew !== null && (
        <div className="sheet-rule" aria-live="polite">
          <Line label="Dew point">
            <Fig quantity="temperature" value={dew} className="text-2xl" />
          </Line>
          {spread !== null && (
            <Line label="Spread">
              <Fig quantity="temperatureDifference" value={spread} className="text-2xl" />
              <span className={spread < LEAST_SPREAD_C ? 'block font-semibold text-error' : 'block quiet'}>
                {spread < LEAST_SPREAD_C ? 'too damp by what is usual' : 'dry enough by what is usual'}
              </span>
            </Line>
          )}
        </div>
      )}
    </>
  );
}

/** What is usual, of no sheet's own. */
const LEAST_SPREAD_C = limitsInForce({ limits: NO_LIMITS }).spreadMinC.at;

/** How high each part fills a straight or tapered pot. */
export function Marks() {
  const { figure, word } = useLinked();
  const parts = partsOf(word('ratio') ?? '');
  const [bottomM, topM, depthM, mixedL] = [figure('bottom'), figure('rim'), figure('depth'), figure('mixed')];
  const { value, problem } = attempt(() => {
    if (!parts || bottomM === null || depthM === null || mixedL === null) return null;
    const total = parts.reduce((sum, p) => sum + p.ratio, 0);
    const pot = { bottomMm: bottomM * 1000, topMm: (topM ?? bottomM) * 1000, depthMm: depthM * 1000 };
    return fillHeightsMm({ pot, volumesL: parts.map((p) => (mixedL * p.ratio) / total) });
  });
  return (
    <>
      <div className={GRID}>
        <Bare of="ratio" label="Ratio, by volume" hint="4:1" />
        <Figure of="mixed" label="The mix" quantity="volume" />
        <Figure of="bottom" label="Across, at the bottom" quantity="width" />
        <Figure of="rim" label="Across, at the rim" quantity="width" hint="Empty: straight" />
        <Figure of="depth" label="Depth" quantity="width" />
      </div>
      <FormProblem message={problem} />
      {value && parts && (
        <div className="sheet-rule" aria-live="polite">
          {parts.map((p, i) => (
            <Line key={p.name} label={`${p.name} to`}>
              <Fig quantity="width" value={(value[i] as number) / 1000} digits={1} className="text-2xl" />{' '}
              <span className="quiet">from the bottom</span>
            </Line>
          ))}
        </div>
      )}
    </>
  );
}

/** Whole strokes of a pump a part, and the ratio that they really give. */
export function Pump() {
  const { figure, word } = useLinked();
  const parts = partsOf(word('ratio') ?? '');
  const mixedL = figure('mixed');
  const pumps = parts?.map((_p, i) => figure(`pump${i + 1}`)) ?? [];
  const { value, problem } = attempt(() => {
    if (!parts || mixedL === null || pumps.some((p) => p === null)) return null;
    return strokes({
      pumps: pumps.map((litres) => ({ mlPerStroke: (litres as number) * 1000 })),
      ratio: parts.map((p) => p.ratio),
      mixedL,
    });
  });
  return (
    <>
      <div className={GRID}>
        <Bare of="ratio" label="Ratio, by volume" hint="4:1" />
        <Figure of="mixed" label="The mix, about" quantity="volume" />
        {parts?.map((p, i) => (
          <Figure
            key={p.name}
            of={`pump${i + 1}`}
            label={`${p.name}, a stroke`}
            quantity="volume"
            small
            {...(i === 0 ? { hint: '30 ml: measure ten, take a tenth' } : {})}
          />
        ))}
      </div>
      <FormProblem message={problem} />
      {value && parts && (
        <div className="sheet-rule" aria-live="polite">
          {parts.map((p, i) => (
            <Line key={p.name} label={p.name}>
              <span className="fig text-2xl">{value.strokes[i]} strokes</span>{' '}
              <Fig quantity="volume" value={value.volumesL[i] as number} />
            </Line>
          ))}
          <Line label="That is">
            <span className="fig">{value.ratio.map((r) => Number(r.toFixed(2))).join(' : ')}</span>
            <span className={value.withinTolerance ? 'block quiet' : 'block font-semibold text-error'}>
              {value.withinTolerance
                ? 'within 5 % of the ratio'
                : 'outside 5 % of the ratio: mix more at a time, or measure it'}
            </span>
          </Line>
        </div>
      )}
    </>
  );
}

/** Concentrate for a wash. */
export function Wash() {
  const { figure, word } = useLinked();
  const waterL = figure('water');
  const parts = Number((word('to') ?? '').replace(/^1\s*:\s*/, '').replace(',', '.'));
  const { value, problem } = attempt(() => (waterL === null || !word('to') ? null : concentrateL({ waterL, parts })));
  return (
    <>
      <div className={GRID}>
        <Figure of="water" label="Water" quantity="volume" />
        <Bare of="to" label="One part to" hint="50, or 1:50" />
      </div>
      <FormProblem message={problem} />
      {value !== null && (
        <div aria-live="polite">
          <Line label="Concentrate">
            <Fig quantity="volume" value={value} className="text-2xl" />
          </Line>
        </div>
      )}
      <p className="text-sm quiet">
        Read the label of what you wash with; gloves and glasses, and mind where it runs to.
      </p>
    </>
  );
}
