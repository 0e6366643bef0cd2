import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { dataFolder, keepToOneself } from './folder';

/** The key lies beside the database, and in no backup of it: what is hidden in a case cannot be read from one. */
const KEY_FILE = 'practice.key';
const CIPHER = 'aes-256-gcm';
const KEY_BYTES = 32;
const IV_BYTES = 12;
const TAG_BYTES = 16;

function key(): Buffer {
  const file = path.join(/*turbopackIgnore: true*/ dataFolder(), KEY_FILE);
  if (!existsSync(file)) {
    // Whoever is first makes it; two at once agree on the one that is there.
    mkdirSync(dataFolder(), { recursive: true });
    try {
      writeFileSync(file, randomBytes(KEY_BYTES).toString('base64'), { flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
    keepToOneself(file);
  }
  return Buffer.from(readFileSync(file, 'utf8'), 'base64');
}

/** Enciphers what nobody is to read yet. */
export function sealAway(hidden: unknown): string {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv(CIPHER, key(), iv);
  const body = Buffer.concat([cipher.update(JSON.stringify(hidden), 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), body]).toString('base64');
}

/** Reads it again; null where it was sealed on another machine, or altered. */
export function unseal(sealed: string): unknown {
  const bytes = Buffer.from(sealed, 'base64');
  try {
    const decipher = createDecipheriv(CIPHER, key(), bytes.subarray(0, IV_BYTES));
    decipher.setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
    const body = Buffer.concat([decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES)), decipher.final()]);
    return JSON.parse(body.toString('utf8'));
  } catch {
    return null;
  }
}
