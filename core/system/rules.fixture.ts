import { checkBuildUp, type BuildUpCheck, type Finding } from '../index';
import { coat } from './sheets.fixture';

export const found = (check: BuildUpCheck, rule: string): Finding | undefined =>
  checkBuildUp(check).find((f) => f.rule === rule);

export const hull = (layers: BuildUpCheck['layers'], more: Partial<BuildUpCheck> = {}): BuildUpCheck => ({
  substrate: 'laminate',
  exposure: 'immersed',
  layers,
  ...more,
});

export const topsides = (layers: BuildUpCheck['layers'], more: Partial<BuildUpCheck> = {}): BuildUpCheck => ({
  substrate: 'gelcoat',
  exposure: 'weather',
  layers,
  ...more,
});

export const abraded = { prep: 'abrade', grit: 120, abradeFor: 'bond' } as const;

export const full = [coat('barrier'), coat('barrier'), coat('barrier')];
