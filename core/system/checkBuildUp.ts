import type { PaintMethod } from '../model/paintMethod';
import type { ExistingCoating, Exposure, Substrate, TankHolds } from '../model/surface';
import type { Waters } from '../model/sheet';
import { hardOverAblative, overAntifouling, signalColour, watersNotSuited } from './rules/antifouling';
import {
  abradingBySheet,
  acidUnderEpoxy,
  antifoulingOnCuredEpoxy,
  gelcoatUnabraded,
  oldCoatingUntested,
  scratchShowsThrough,
} from './rules/bond';
import {
  filmTooThick,
  firstCoatSoaksIn,
  methodCannotBuild,
  methodNotAllowed,
  moistureFirst,
  profileOfSheet,
  sealBareTimber,
  totalBelowTarget,
} from './rules/film';
import { copperOnMetal, primerOnBareMetal, stripeOnEdges } from './rules/metal';
import { strongOverOnePack, thinnerOfOtherFamily, tooMuchThinner } from './rules/solvent';
import { bareToTheSun } from './rules/sun';
import { drinkingWater, polyesterBelowWater, topcoatBelowWater } from './rules/water';
import { doesNotHide, holdsTooLong, structureOpen } from './rules/work';
import type { Finding, RecordKind, Rule, Severity, StackLayer } from './stack';

/** Every rule of what may lie on what. Each looks at the whole stack and answers for itself. */
const RULES: readonly Rule[] = [
  strongOverOnePack,
  copperOnMetal,
  topcoatBelowWater,
  drinkingWater,
  antifoulingOnCuredEpoxy,
  hardOverAblative,
  overAntifouling,
  thinnerOfOtherFamily,
  bareToTheSun,
  primerOnBareMetal,
  polyesterBelowWater,
  acidUnderEpoxy,
  abradingBySheet,
  scratchShowsThrough,
  gelcoatUnabraded,
  oldCoatingUntested,
  structureOpen,
  filmTooThick,
  totalBelowTarget,
  methodNotAllowed,
  tooMuchThinner,
  holdsTooLong,
  watersNotSuited,
  methodCannotBuild,
  stripeOnEdges,
  sealBareTimber,
  firstCoatSoaksIn,
  moistureFirst,
  profileOfSheet,
  signalColour,
  doesNotHide,
];

const ORDER: Record<Severity, number> = { stop: 0, caution: 1, note: 2 };

export interface BuildUpCheck {
  readonly substrate: Substrate;
  readonly exposure: Exposure;
  /** From the substrate out, each with its sheet. */
  readonly layers: readonly StackLayer[];
  /** How the coats go on where one does not say. */
  readonly method?: PaintMethod | undefined;
  /** What lies on the substrate already; bare where left out. */
  readonly existing?: ExistingCoating | undefined;
  readonly waters?: Waters | null | undefined;
  /** What a tank holds; left out or null: nobody has said. */
  readonly holds?: TankHolds | null | undefined;
  readonly records?: readonly RecordKind[] | undefined;
  readonly openWork?: boolean | undefined;
  /** Total dry film wanted, µm; the usual one of a barrier below the water where left out. */
  readonly targetMicron?: number | null | undefined;
}

/**
 * Hold a build-up against the rules of what may lie on what.
 * @returns findings, stops first, then from the substrate out; `upper` and `lower` are places in `layers`, or what lies beneath the first
 * @throws never for a missing figure: a rule whose figure is not on the sheet is silent
 * @example
 *   checkBuildUp({ substrate: 'aluminium', exposure: 'immersed', layers: stack }).some(
 *     (f) => f.rule === 'copperOnMetal',
 *   ) // → true
 */
export function checkBuildUp(check: BuildUpCheck): Finding[] {
  const stack = {
    substrate: check.substrate,
    exposure: check.exposure,
    existing: check.existing ?? 'bare',
    layers: check.layers,
    method: check.method ?? null,
    waters: check.waters ?? null,
    holds: check.holds ?? null,
    records: check.records ?? [],
    openWork: check.openWork ?? false,
    targetMicron: check.targetMicron ?? null,
  };
  const found = RULES.flatMap((rule) => rule(stack));
  return found.sort((a, b) => ORDER[a.severity] - ORDER[b.severity] || (a.upper ?? 99) - (b.upper ?? 99));
}
