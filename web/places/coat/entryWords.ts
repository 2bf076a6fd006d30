import type { LogEntry, StartedBody } from '#core/model/log';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import { ABRADE_FOR_WORDS, AGAINST_WORDS } from '../../parts/choiceWords';
import { METHOD_WORDS } from '../../parts/words';

/** How entries are told: in which units, and what the zones are called. */
export interface EntrySaying {
  readonly units: UnitChoice;
  readonly nameOf: (surfaceId: string) => string;
}

/** An entry in a line. */
export function entryWords(entry: LogEntry, { units, nameOf }: EntrySaying): string {
  const on = (surfaceId: string | null | undefined) => (surfaceId ? ` on ${nameOf(surfaceId)}` : '');
  switch (entry.kind) {
    case 'started':
      return startedWords(entry.body, units);
    case 'reading': {
      const { airC, rh, surfaceC } = entry.body;
      const parts = [
        airC === null ? null : `air ${formatQuantity('temperature', airC, units)}`,
        rh === null ? null : `humidity ${formatQuantity('percent', rh, units, 0)}`,
        surfaceC === null
          ? null
          : `surface ${formatQuantity('temperature', surfaceC, units)}${on(entry.body.surfaceId)}`,
      ];
      return `Read ${parts.filter(Boolean).join(', ')}`;
    }
    case 'wetFilm':
      return `Comb ${entry.body.micron.map((m) => formatQuantity('film', m, units)).join(', ')} wet`;
    case 'batchOn':
      return `Batch of ${formatQuantity('volume', entry.body.litres, units)} on`;
    case 'finished': {
      const { litresOn, leftL, lostL } = entry.body;
      const litres = (value: number | null | undefined, what: string) =>
        value == null ? '' : `, ${formatQuantity('volume', value, units)} ${what}`;
      return `Finished${litres(litresOn, 'on the hull')}${litres(leftL, 'left in the pot')}${litres(lostL, 'lost')}`;
    }
    case 'handTest':
      return entry.body.test === 'thumb'
        ? `Thumb test${on(entry.body.surfaceId)}: ${entry.body.passed ? 'print, nothing comes off' : 'still comes off'}`
        : `Sanding test${on(entry.body.surfaceId)}: ${entry.body.passed ? 'powders' : 'gums'}`;
    case 'note':
      return entry.body.text;
    case 'mixed':
      return `Mixed ${formatQuantity('volume', entry.body.totalL, units)}: ${[
        ...entry.body.parts.map((p) => `${p.name} ${formatQuantity('volume', p.volumeL, units)}`),
        ...(entry.body.thinnerL > 0 ? [`thinner ${formatQuantity('volume', entry.body.thinnerL, units)}`] : []),
      ].join(', ')}${entry.body.standMin > 0 ? `; to stand ${entry.body.standMin} min` : ''}`;
    case 'silenced':
      return 'Timer silenced';
    case 'emptied':
      return 'Pot empty';
    case 'withdrawn':
      return 'Withdrawn';
  }
}

function startedWords(body: StartedBody, units: UnitChoice): string {
  const { method, thinner, abradedGrit, abradedFor, overrideReason, against } = body;
  return [
    `Started by ${METHOD_WORDS[method].toLowerCase()}`,
    thinner > 0 ? `, thinner ${formatQuantity('percent', thinner, units)} of the mix` : '',
    abradedGrit ? `, abraded with ${abradedGrit}${abradedFor ? ` ${ABRADE_FOR_WORDS[abradedFor]}` : ''} before` : '',
    overrideReason
      ? `. Against advice${against?.length ? ` (${against.map((a) => AGAINST_WORDS[a]).join(', ')})` : ''}: ${overrideReason}`
      : '',
  ].join('');
}
