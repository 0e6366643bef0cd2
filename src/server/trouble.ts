/** Why the shop's records cannot be worked on, in a sentence for whoever stands before them. Nothing was recorded. */
export class StoreTrouble extends Error {}

/** That the database is damaged. */
export const DAMAGED =
  'The database is damaged. Nothing was recorded, and nothing more is written to it. Stop the application, then put the last good backup in its place: npm run restore -- FILE.';
const FULL =
  'The disk is full, so nothing was recorded. Free some space, then try again. What was recorded before is safe.';
const READ_ONLY =
  'The data folder can only be read, so nothing was recorded. Its disk may have been taken for faulty: look at it, then try again.';
const NO_RIGHT =
  'The data folder cannot be opened, so nothing was recorded. This account may have no right to it, or its disk is not there.';
const NOT_TAKEN =
  'The disk did not take what was written, so nothing was recorded. Make a backup on another disk before anything else.';

/** What the disk or the database says went wrong, by its code. A full disk makes SQLite undo the transaction by itself. */
const WORDS: readonly (readonly [code: RegExp, words: string])[] = [
  [/^(SQLITE_CORRUPT|SQLITE_NOTADB)/, DAMAGED],
  [/^(SQLITE_FULL|ENOSPC|EDQUOT)/, FULL],
  [/^(SQLITE_READONLY|EROFS)/, READ_ONLY],
  [/^(SQLITE_CANTOPEN|SQLITE_PERM|EACCES|EPERM|ENOENT|ENOTDIR)/, NO_RIGHT],
  [/^(SQLITE_IOERR|EIO)/, NOT_TAKEN],
];

/** That in a sentence; null where it is no trouble of the disk or of the database. */
export function troubleWords(error: unknown): string | null {
  if (error instanceof StoreTrouble) return error.message;
  const { code = '', message = '' } = error as { code?: string; message?: string };
  const found = WORDS.find(([of]) => of.test(String(code)));
  if (found) return found[1];
  // What is reported then is that there is no transaction left to undo.
  return message.includes('no transaction is active') ? FULL : null;
}
