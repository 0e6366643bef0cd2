import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';
import { canonicalJson } from '@/core/records/canonical';
import { done, refused, type Outcome } from './outcome';
import { addProfile, findProfile } from './shelf';
import { missing } from './store';

const FORMAT = 'hard-pedal-profile';
const VERSION = 2;
/** Largest profile file read, bytes. */
export const MOST_PROFILE_BYTES = 200_000;

/** A profile as it goes from shop to shop. */
export const profileFileSchema = z.strictObject({
  format: z.literal(FORMAT),
  version: z.literal(VERSION),
  /** Revision of the profiles of its kind. */
  revision: z.int().min(1),
  profile: z.looseObject({ kind: z.enum(FAMILY_KINDS) }),
});

/** The file's first version named no revision: there was one. */
const presentProfileFile = (file: Record<string, unknown>) =>
  file.version === 1 ? { ...file, version: VERSION, revision: 1 } : file;

export async function exportProfile(db: Knex, id: string): Promise<Outcome<{ name: string; body: string }>> {
  const found = await findProfile(db, id);
  if (!found) return missing('profile');
  const body = `${canonicalJson({
    format: FORMAT,
    version: VERSION,
    revision: FAMILIES[found.kind].revision,
    profile: found.body,
  })}\n`;
  return done({ name: `${found.body.name}.hard-pedal-profile.json`, body });
}

/** Takes a profile file onto the shelf as a profile of its own. */
export async function importProfile(db: Knex, text: string, now: string): Promise<Outcome<{ id: string }>> {
  const no = (message: string) => refused({ code: 'refused', message: `${message} Nothing was taken in.` });
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return no('This file is broken: it is not whole JSON.');
  }
  const head = raw as { format?: unknown; version?: unknown } | null;
  if (head?.format !== FORMAT) return no('This is not a Hard Pedal profile file.');
  if (typeof head.version === 'number' && head.version > VERSION)
    return no('This profile file was written by a newer Hard Pedal.');
  const parsed = profileFileSchema.safeParse(presentProfileFile(raw as Record<string, unknown>));
  if (!parsed.success) return no('This profile file is not as it should be.');
  const { profile, revision } = parsed.data;
  const family = FAMILIES[profile.kind as FamilyKind];
  if (revision > family.revision) return no('This profile was written by a newer Hard Pedal.');
  const added = await addProfile(db, family.upcast(profile, revision), now);
  return added.ok
    ? done({ id: added.value.id })
    : no(`The profile is not as it should be: ${added.why.message}`);
}
