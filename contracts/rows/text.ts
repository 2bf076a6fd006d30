/** Nothing that is sent lies deeper than this. */
const DEEPEST = 40;

/**
 * Where a value holds what no database keeps: U+0000, half of a character (a lone surrogate), or brackets within
 * brackets without end.
 * @returns the path to it; null where all is sound
 */
export function unsoundText(
  value: unknown,
  path: readonly (string | number)[] = [],
): readonly (string | number)[] | null {
  if (typeof value === 'string') return soundText(value) ? null : path;
  if (value === null || typeof value !== 'object') return null;
  if (path.length > DEEPEST) return path.slice(0, 3);
  for (const [key, inner] of Object.entries(value)) {
    if (!soundText(key)) return path;
    const found = unsoundText(inner, [...path, key]);
    if (found) return found;
  }
  return null;
}

/** Whether a text is whole: no U+0000, no half of a surrogate pair. */
export function soundText(text: string): boolean {
  return !/\0|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text);
}
