import type { Knex } from 'knex';
import type { RemovedThing } from '@/core/records/views';
import { linksOf, writtenFrom } from './journal';
import { shelfChain, type Shelf, type ShelfEntry } from './store';
import { comparisons } from './comparisons';
import { instruments, profiles } from './shelf';
import { technicians } from './technicians';
import { traces } from './traces';
import { FAMILY_KINDS } from '@/core/families/registry';

/** What can be taken off the shelf: its shelf, where it is put back, and what it is called. */
const KINDS: readonly {
  readonly shelf: Pick<Shelf<unknown>, 'table' | 'what'>;
  readonly name: (body: Record<string, string>) => string;
}[] = [
  { shelf: instruments, name: ({ tag, name }) => [tag, name].filter(Boolean).join(' · ') },
  { shelf: profiles(FAMILY_KINDS[0]), name: ({ name }) => name! },
  { shelf: comparisons, name: ({ place }) => (place as unknown as { name: string }).name },
  { shelf: technicians, name: ({ name }) => name! },
  { shelf: traces, name: ({ name }) => name! },
];

/** Everything that was taken off the shelf and not put back, newest first. */
export async function listRemoved(db: Knex): Promise<RemovedThing[]> {
  const found = await Promise.all(
    KINDS.map(async ({ shelf, name }) => {
      const rows = (await db(shelf.table).where({ deleted: true })) as { id: string; body: string }[];
      return Promise.all(
        rows.map(async ({ id, body }): Promise<RemovedThing> => {
          const last = (await linksOf(db, shelfChain(shelf, id))).at(-1)!;
          const { at } = writtenFrom<ShelfEntry>(last);
          return { id, what: shelf.what, path: `/${shelf.table}/${id}`, name: name(JSON.parse(body)), at };
        }),
      );
    }),
  );
  return found.flat().sort((a, b) => b.at.localeCompare(a.at));
}
