import type { Knex } from 'knex';
import sharp from 'sharp';
import { z } from 'zod';
import type { JobRecord } from '@/core/records/job-record';
import { sha256 } from './journal';
import { write } from './jobs';
import { done, invalid, type Outcome } from './outcome';
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
      await storePicture(trx, photo.sha256, jpeg);
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
  await storePicture(db, name, kept.value.jpeg);
  return done({ sha256: name });
}

/** Keeps a picture under its own seal; the same picture is kept once. */
export const storePicture = (trx: Knex, name: string, jpeg: Buffer) =>
  trx('photos').insert({ sha256: name, jpeg }).onConflict('sha256').ignore();

export async function readPicture(db: Knex, name: string): Promise<Outcome<Buffer>> {
  const row = await db('photos').where({ sha256: name }).first();
  return row ? done(row.jpeg as Buffer) : missing('photo');
}
