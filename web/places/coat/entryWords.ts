import type { LogEntry, MixedBody, StartedBody, WetFilmBody } from '#core/model/log';
import { formatQuantity, type UnitChoice } from '#core/units/format';
import { ABRADE_FOR_WORDS, AGAINST_WORDS } from '../../parts/choiceWords';
import { prepEntryWords } from '../../parts/prepWords';
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
      return `Comb ${combWords(entry.body, units)} wet`;
    case 'paused':
      return `Paused${entry.body.reason ? `: ${entry.body.reason}` : ''}`;
    case 'resumed':
      return entry.body.painters?.length ? `Went on, ${entry.body.painters.join(', ')}` : 'Went on';
    case 'covered': {
      const { surfaceId, share, panels, of } = entry.body;
      const done = panels ? `${panels.length} of ${of} panels` : formatQuantity('percent', share, units, 0);
      return `${done} of ${nameOf(surfaceId)} covered`;
    }
    case 'picture':
      return `Picture${on(entry.body.drawnAt?.surfaceId)}${entry.body.text ? `: ${entry.body.text}` : ''}`;
    case 'cautioned':
      return 'Caution read';
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
      return `${entry.body.text}${on(entry.body.drawnAt?.surfaceId)}`;
    case 'mixed':
      return mixedWords(entry.body, units);
    case 'silenced':
      return 'Timer silenced';
    case 'emptied':
      return 'Pot empty';
    case 'withdrawn':
      return 'Withdrawn';
    case 'dirtied':
    case 'evidence':
    case 'foundWork':
    case 'lineSet':
    case 'marked':
    case 'masked':
    case 'planAccepted':
    case 'prepared':
    case 'prepPlanned':
    case 'rustLooked':
    case 'setOff':
    case 'standsMoved':
    case 'stood':
    case 'structureAsked':
    case 'unmasked':
    case 'wayOut':
    case 'weights':
      return prepEntryWords(entry, { units, nameOf });
  }
}

function combWords({ micron, teeth }: WetFilmBody, units: UnitChoice): string {
  const film = (m: number) => formatQuantity('film', m, units);
  return micron
    .map((m, i) => (teeth?.[i] ? `between ${film(teeth[i][0])} and ${film(teeth[i][1])}` : film(m)))
    .join(', ');
}

function mixedWords(body: MixedBody, units: UnitChoice): string {
  const litres = (value: number) => formatQuantity('volume', value, units);
  const { totalL, parts, thinnerL, standMin, use, ratioReason, additives } = body;
  return [
    `Mixed ${litres(totalL)}: ${[
      ...parts.map((p) => `${p.name} ${litres(p.volumeL)}`),
      ...(thinnerL > 0 ? [`thinner ${litres(thinnerL)}`] : []),
      ...(additives ?? []).map((a) => `${a.name} ${litres(a.litres)}`),
    ].join(', ')}`,
    use ? `; in the ratio for ${use}` : '',
    standMin > 0 ? `; to stand ${standMin} min` : '',
    ratioReason ? `. Off its ratio: ${ratioReason}` : '',
  ].join('');
}

function startedWords(body: StartedBody, units: UnitChoice): string {
  const { painters, method, thinner, abradedGrit, abradedFor, overrideReason, against } = body;
  return [
    `Started by ${METHOD_WORDS[method].toLowerCase()}`,
    painters && painters.length > 1 ? `, ${painters.join(', ')}` : '',
    thinner > 0 ? `, thinner ${formatQuantity('percent', thinner, units)} of the mix` : '',
    abradedGrit ? `, abraded with ${abradedGrit}${abradedFor ? ` ${ABRADE_FOR_WORDS[abradedFor]}` : ''} before` : '',
    overrideReason
      ? `. Against advice${against?.length ? ` (${against.map((a) => AGAINST_WORDS[a]).join(', ')})` : ''}: ${overrideReason}`
      : '',
  ].join('');
}
