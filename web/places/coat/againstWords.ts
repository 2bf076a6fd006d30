import type { Against } from '#core/coat/start';
import { OPEN_WORK_WORDS } from '../../parts/choiceWords';
import { windowLine, type Saying } from '../../parts/zoneWords';

/** What stands against a start, in words. */
export function againstWords(
  against: Against,
  { nameOf, at, zone }: { nameOf: (surfaceId: string) => string } & Pick<Saying, 'at' | 'zone'>,
): string {
  switch (against.kind) {
    case 'window':
      return `${nameOf(against.status.surfaceId)}: ${windowLine(against.status, { at, zone })}`;
    case 'openWork': {
      const { kind, note } = against.work;
      return `${nameOf(against.surfaceId)}: ${OPEN_WORK_WORDS[kind].toLowerCase()}, still open${note ? ` (${note.replace(/\.$/, '')})` : ''}`;
    }
    case 'air':
      return 'the air is outside the sheet’s limits';
    case 'rule':
      return `${nameOf(against.surfaceId)}: ${against.finding.reason.replace(/\.$/, '')}`;
  }
}
