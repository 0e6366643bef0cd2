/** A character that no file, seal or database keeps as it was: one half of a pair, or nothing at all. */
const isKept = (text: string): boolean => text.isWellFormed() && !text.includes('\0');

/**
 * Where a text holds a character that cannot be kept, in something that was sent.
 *
 * @returns the names that lead to it, the last one first looked at last; null where all can be kept
 */
export function unkeptText(value: unknown): readonly string[] | null {
  if (typeof value === 'string') return isKept(value) ? null : [];
  if (value === null || typeof value !== 'object') return null;
  for (const [name, member] of Object.entries(value)) {
    if (!isKept(name)) return [];
    const found = unkeptText(member);
    if (found) return [name, ...found];
  }
  return null;
}

/** That in a sentence. */
export const unkeptWords = (where: readonly string[]): string =>
  `${where.length > 0 ? `${where.join(', ')}: ` : ''}there is a character in this text that cannot be kept. Type it anew without it.`;

/** A text as it can be kept: what cannot be is replaced by the mark for that. */
export const keptText = (text: string): string => text.toWellFormed().replaceAll('\0', '\uFFFD');

/** Nothing that is sent or kept here is nested more deeply, or has more members of lists and objects. */
export const JSON_BOUNDS = { deepest: 100, parts: 3_000_000 } as const;

/**
 * What JSON has too much of, known before it is read: reading goes as deep as it is nested, and takes memory for every member.
 *
 * @returns null where it keeps within the bounds
 */
export function jsonExcess(text: string): 'depth' | 'parts' | null {
  let depth = 0;
  let parts = 0;
  let within = false;
  for (let i = 0; i < text.length; i += 1) {
    const char = text[i]!;
    if (within && char === '\\') i += 1;
    else if (char === '"') within = !within;
    else if (within) continue;
    else if (char === '[' || char === '{') [depth, parts] = [depth + 1, parts + 1];
    else if (char === ']' || char === '}') depth -= 1;
    else if (char === ',') parts += 1;
    if (depth > JSON_BOUNDS.deepest) return 'depth';
    if (parts > JSON_BOUNDS.parts) return 'parts';
  }
  return null;
}
