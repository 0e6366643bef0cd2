import type { Knex } from 'knex';
import sharp from 'sharp';
import { z } from 'zod';
import type { JobRecord } from '@/core/records/job-record';
import { sha256 } from './journal';
import { write } from './jobs';
import { done, invalid, type Outcome } from './outcome';
import { roomOf } from './room';
import { missing } from './store';
import { Undone } from './undone';

/** Largest picture taken in, bytes. */
export const MOST_PHOTO_BYTES = 20_000_000;
/** Longest side kept, pixels: a crack can be seen, and a job file stays small. */
const LONGEST_SIDE = 1_600;
const MOST_PIXELS = 120_000_000;
const JPEG_QUALITY = 82;
/** Kinds of picture that cameras and screens make; a drawing with scripts in it is none. */
const KINDS = ['jpeg', 'png', 'webp', 'gif', 'tiff', 'heif'];

const aboutSchema = z.strictObject({
  id: z.uuid(),
  point: z.string().min(1).max(40).nullable(),
  caption: z.string().trim().max(500, 'Caption: 500 characters at the most.'),
});

const NOT_A_PICTURE =
  'That file is not a picture that can be read here. Choose a photo as JPEG, PNG or WebP; nothing was added.';

/** A picture as it is kept: upright, no larger than needed, with nothing in it but the picture. */
export async function keptPicture(
  bytes: Buffer,
): Promise<Outcome<{ jpeg: Buffer; width: number; height: number }>> {
  if (bytes.length === 0)
    return invalid([{ path: ['photo'], message: 'That file is empty; nothing was added.' }]);
  if (bytes.length > MOST_PHOTO_BYTES)
    return invalid([
      { path: ['photo'], message: 'That picture is larger than 20 MB. Make it smaller first.' },
    ]);
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (!format || !KINDS.includes(format)) return invalid([{ path: ['photo'], message: NOT_A_PICTURE }]);
    // The camera's orientation is applied to the pixels; re-encoding leaves every tag behind, the place among them.
    const { data, info } = await picture
      .autoOrient()
      .resize(LONGEST_SIDE, LONGEST_SIDE, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: JPEG_QUALITY })
      .toBuffer({ resolveWithObject: true });
    return done({ jpeg: data, width: info.width, height: info.height });
  } catch {
    return invalid([{ path: ['photo'], message: NOT_A_PICTURE }]);
  }
}

/** Adds a photo to a job: picture and entry are on disk together. */
export async function addPhoto(
  db: Knex,
  jobId: string,
  about: unknown,
  bytes: Buffer,
  at: string,
): Promise<Outcome<JobRecord>> {
  const parsed = aboutSchema.safeParse(about);
  if (!parsed.success) return invalid(parsed.error.issues);
  const kept = await keptPicture(bytes);
  if (!kept.ok) return kept;
  const { jpeg, width, height } = kept.value;
  const { id, point, caption } = parsed.data;
  const photo = { sha256: sha256(jpeg), width, height, bytes: jpeg.length, point, caption };
  return db
    .transaction(async (trx) => {
      await storePicture(trx, photo.sha256, jpeg, true);
      const outcome = await write(trx, jobId, { id, at, entry: { type: 'photo', photo } });
      if (!outcome.ok) throw new Undone(outcome);
      return outcome;
    })
    .catch((error: unknown) => {
      if (error instanceof Undone) return error.outcome as Outcome<JobRecord>;
      throw error;
    });
}

/** Takes in a picture that belongs to no job, as it will be kept. @returns its seal */
export async function addPicture(db: Knex, bytes: Buffer): Promise<Outcome<{ sha256: string }>> {
  const kept = await keptPicture(bytes);
  if (!kept.ok) return kept;
  const name = sha256(kept.value.jpeg);
  await storePicture(db, name, kept.value.jpeg, true);
  return done({ sha256: name });
}

/**
 * Keeps a picture under its own seal; the same picture is kept once.
 *
 * @param madeHere it is as `keptPicture` made it, and not as a file brought it
 */
export const storePicture = (trx: Knex, name: string, jpeg: Buffer, madeHere: boolean) =>
  trx('photos').insert({ sha256: name, jpeg, made_here: madeHere }).onConflict('sha256').ignore();

/** Pictures made anew to be shown, the one shown last at the end: a page asks for each of its own several times. */
const shown = new Map<string, Buffer>();
const MOST_SHOWN = 40;

/**
 * A picture as it is shown and printed. What a file brought is kept as its seal has it, and is never shown so: it is decoded here, and made
 * anew with nothing in it but the picture.
 *
 * @returns null where it is no picture
 */
async function shownPicture({ sha256: name, jpeg, made_here: madeHere }: PictureRow): Promise<Buffer | null> {
  if (madeHere) return jpeg;
  const made =
    shown.get(name) ??
    (await roomOf('pictures').within(async () => {
      const kept = await keptPicture(jpeg);
      return kept.ok ? kept.value.jpeg : null;
    }, true));
  if (!made) return null;
  shown.delete(name);
  shown.set(name, made);
  if (shown.size > MOST_SHOWN) shown.delete(shown.keys().next().value!);
  return made;
}

interface PictureRow {
  readonly sha256: string;
  readonly jpeg: Buffer;
  readonly made_here: number;
}

/** These pictures as they are shown, by their seals; those that are not there are left out. */
export async function shownPictures(db: Knex, names: readonly string[]): Promise<Map<string, Buffer>> {
  const rows: PictureRow[] = await db('photos').whereIn('sha256', names);
  const pictures = new Map<string, Buffer>();
  for (const row of rows) {
    const picture = await shownPicture(row);
    if (picture) pictures.set(row.sha256, picture);
  }
  return pictures;
}

export async function readPicture(db: Knex, name: string): Promise<Outcome<Buffer>> {
  const picture = (await shownPictures(db, [name])).get(name);
  return picture ? done(picture) : missing('photo');
}
