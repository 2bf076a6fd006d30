import type { Settings } from '../data/settings';

/** Words that are others on the far side of the Atlantic, as the program has them and as they are said there. */
const US_WORDS: readonly (readonly [RegExp, string])[] = [
  [/\bGRP\b/g, 'fiberglass'],
  [/\bdraught\b/gi, 'draft'],
  [/\baluminium\b/gi, 'aluminum'],
  [/\bcolour(s?)\b/gi, 'color$1'],
  [/\bgrey\b/gi, 'gray'],
];

const sameCase = (from: string, to: string) => (/^[A-Z][a-z]/.test(from) ? to[0]?.toUpperCase() + to.slice(1) : to);

/** Which English this device is spoken to in: its own choice, else that of its units. */
export const spokenIn = ({ words, units }: Pick<Settings, 'words' | 'units'>): 'us' | 'uk' =>
  words ?? (units.system === 'us' ? 'us' : 'uk');

/** A text in that English. */
export function spoken(text: string, english: 'us' | 'uk'): string {
  if (english === 'uk') return text;
  const said = US_WORDS.reduce(
    (said, [word, us]) =>
      said.replace(word, (found, tail?: string) =>
        sameCase(found, us.replace('$1', typeof tail === 'string' ? tail : '')),
      ),
    text,
  );
  return /^fiberglass/.test(said) ? `F${said.slice(1)}` : said;
}
