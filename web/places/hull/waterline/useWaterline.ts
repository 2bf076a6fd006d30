import { useMemo, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { hullShape, type HullShape } from '#core/hull/shape';
import type { LineSetBody, WeightsBody } from '#core/model/waterline';
import { systemFor } from '#core/units/format';
import { howHigh } from '#core/waterline/howHigh';
import { lineTable, stationsAlong } from '#core/waterline/lineTable';
import { standingPlane } from '#core/waterline/standing';
import { drawLine, foldWaterline, type DrawnLine } from '#core/waterline/waterlineLog';
import {
  loaded,
  roughDisplacementKg,
  waterplaneByCoefficient,
  WATERPLANE_COEFFICIENT,
  waterplaneOf,
} from '#core/waterline/waterplane';
import { useSettings } from '../../../data/settings';
import type { BoatView } from '../../../data/store';
import { attempt } from '../../../parts/attempt';
import { linesOf } from '../../../parts/hullLines';
import { logOnBoat, TAP } from '../../prep/usePrep';

/** Stations so far apart, m, until another distance is typed: half a metre, or two feet. */
const STEP_M = { metric: 0.5, us: 0.6096 } as const;

const NO_WEIGHTS: WeightsBody = { items: [], water: 'sea', displacementKg: null, coefficient: null };

export const newLine = (name: string): LineSetBody => ({
  lineId: uuid(),
  name,
  levelM: null,
  noiseM: null,
  raiseM: 0,
  bandM: 0,
  bandMode: 'height',
  chosen: false,
});

/** All that is known of a boat's waterline, worked out. */
export function useWaterline(view: BoatView) {
  const { boat, hull, entries } = view;
  const log = foldWaterline(entries);
  const [picked, setPicked] = useState<string | null>(null);
  const { units } = useSettings();
  const [stepM, setStepM] = useState<number>(STEP_M[systemFor(units, 'length')]);
  /** A line as a slider holds it, before it is let go. */
  const [held, setHeld] = useState<LineSetBody | null>(null);
  const shape = useMemo(() => hullShape(boat, linesOf(hull)), [boat, hull]);
  const standing = useMemo(() => (log.stood ? standingPlane({ points: log.stood.points }) : null), [log.stood]);
  const lines = useMemo(
    () =>
      log.lines.map((line) =>
        drawLine({ line: held?.lineId === line.lineId ? held : line, marks: log.marks, hull: { shape, standing } }),
      ),
    [log.lines, log.marks, held, shape, standing],
  );
  const line = lines.find((l) => l.line.lineId === picked) ?? lines.find((l) => l.line.chosen) ?? lines[0] ?? null;
  const xM = useMemo(() => stationsAlong(shape.lengthM, stepM), [shape.lengthM, stepM]);
  const table = useMemo(() => (line ? lineTable({ line, shape, standing, xM }) : []), [line, shape, standing, xM]);
  const weights: WeightsBody = log.weights ?? NO_WEIGHTS;
  const water = useMemo(() => loadedOf(boat, shape, weights), [boat, shape, weights]);
  const high = useMemo(
    () => (line && water.value ? dryOf(line, water.value, shape, xM) : null),
    [line, water, shape, xM],
  );
  const setLine = (next: LineSetBody, label: string) => {
    setHeld(null);
    return logOnBoat(view, { kind: 'lineSet', body: plainLine(next) }, label, TAP);
  };
  return {
    log,
    shape,
    standing,
    lines,
    line,
    setPicked,
    table,
    stepM,
    setStepM,
    held,
    setHeld,
    setLine,
    weights,
    water,
    high,
  };
}

export type Waterline = ReturnType<typeof useWaterline>;

/** A line as it is logged: without what the log itself adds. */
const plainLine = ({
  lineId,
  name,
  levelM,
  noiseM,
  raiseM,
  bandM,
  bandMode,
  chosen,
  removed,
}: LineSetBody): LineSetBody => ({
  lineId,
  name,
  levelM,
  noiseM,
  raiseM,
  bandM,
  bandMode,
  chosen,
  ...(removed ? { removed } : {}),
});

/** Where the water will lie on her: by her shape where that is measured, else by a coefficient. */
function loadedOf(boat: BoatView['boat'], shape: HullShape, weights: WeightsBody) {
  return attempt(() => {
    const { coefficient, items, water } = weights;
    const [aftM, foreM] = shape.waterline;
    const byShape = coefficient === null && shape.known !== 'dimensions';
    const waterplane = byShape
      ? waterplaneOf({ shape, heightM: 0 })
      : waterplaneByCoefficient({
          lwlM: foreM - aftM,
          bwlM: boat.beamM,
          coefficient: coefficient ?? WATERPLANE_COEFFICIENT[boat.form],
          aftM,
        });
    const displacementKg = weights.displacementKg ?? roughDisplacementKg(boat);
    return { byShape, waterplane, displacementKg, ...loaded({ waterplane, weights: items, water, displacementKg }) };
  });
}

/** How dry the topcoat over a line stays, at the stations in the water. */
function dryOf(
  line: DrawnLine,
  water: { readonly waterRiseM: (at: { xM: number; yM: number }) => number },
  shape: HullShape,
  xM: readonly number[],
) {
  const [aft, fore] = shape.waterline;
  const stations = xM
    .filter((x) => x >= aft && x <= fore)
    .flatMap((x) => {
      const lineM = line.heightM(x);
      if (lineM === null) return [];
      const half = shape.half(x, 0);
      // The lower side of a heel takes the water.
      const waterM = Math.max(water.waterRiseM({ xM: x, yM: half }), water.waterRiseM({ xM: x, yM: -half }));
      return [{ xM: x, lineM, waterM }];
    });
  return howHigh({ stations });
}
