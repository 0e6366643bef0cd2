/** What could not be read and was left out of a list since the application began. Pages and routes have modules of their own. */
const held = globalThis as typeof globalThis & { hardPedalDamaged?: Set<string> };
const damaged = (held.hardPedalDamaged ??= new Set());

/** A row of a list, and what it is called. */
interface ListRow {
  readonly id: string;
  readonly tag?: unknown;
  readonly name?: unknown;
}

const leaveOut = (what: string, { id, tag, name }: ListRow) => {
  damaged.add(`${what} ${String(tag ?? name ?? id)}`);
  return [];
};

/** Reads the rows of a list: one that is damaged is left out, and does not take the others with it. */
export function readable<Row extends ListRow, T>(
  what: string,
  rows: readonly Row[],
  read: (row: Row) => T,
): T[] {
  return rows.flatMap((row) => {
    try {
      return [read(row)];
    } catch {
      return leaveOut(what, row);
    }
  });
}

/** The same for what takes its time. */
export async function readableOnes<Row extends ListRow, T>(
  what: string,
  rows: readonly Row[],
  read: (row: Row) => Promise<T>,
): Promise<T[]> {
  const all = await Promise.all(
    rows.map((row) =>
      read(row).then(
        (one) => [one],
        () => leaveOut(what, row),
      ),
    ),
  );
  return all.flat();
}

/** That something is left out of the lists, in a sentence; null where nothing is. */
export function leftOutWords(): string | null {
  if (damaged.size === 0) return null;
  const [first] = damaged;
  return damaged.size === 1
    ? `One thing cannot be read and is left out of the lists: ${first}.`
    : `${damaged.size} things cannot be read and are left out of the lists, among them ${first}.`;
}
