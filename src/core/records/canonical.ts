/**
 * JSON in one spelling only: no spaces, members in the order of their names' UTF-16 code units (RFC 8785). Two
 * programs that write the same thing write the same bytes, so that a hash of it means something.
 *
 * @throws RangeError for a number that JSON cannot hold
 */
export function canonicalJson(value: unknown): string {
  if (typeof value === 'number' && !Number.isFinite(value))
    throw new RangeError(`value: ${value} is not JSON`);
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  if (Array.isArray(value)) return `[${value.map((item) => canonicalJson(item ?? null)).join(',')}]`;
  const members = Object.entries(value)
    .filter(([, member]) => member !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, member]) => `${JSON.stringify(name)}:${canonicalJson(member)}`);
  return `{${members.join(',')}}`;
}
