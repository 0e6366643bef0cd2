import { createHash } from 'node:crypto';
import { parentPort, workerData } from 'node:worker_threads';
import { readJobFile, type ReadJobFile } from '@/core/records/job-file';
import { asciiJson } from './ascii-json';
import { picturesApart } from './pictures-apart';

/** What is in a job file beside its pictures is shorter: twenty thousand entries take some 15 MB. */
const MOST_RECORD_BYTES = 40_000_000;

/** A job file that was read, and its pictures by the text that stands for them in it. */
export interface JobFileAnswer {
  readonly read: ReadJobFile;
  readonly pictures: ReadonlyMap<string, Uint8Array>;
}

const sha256 = (data: string | Uint8Array) => createHash('sha256').update(data).digest('hex');

/** The bytes that were handed over are let go of, and not held beside it as the data of the thread are. */
function ownBytes({ buffer, byteOffset, byteLength }: Uint8Array<ArrayBuffer>): Buffer<ArrayBuffer> {
  return Buffer.from(structuredClone(buffer, { transfer: [buffer] }), byteOffset, byteLength);
}

function read(file: Buffer<ArrayBuffer>): JobFileAnswer {
  const { json, pictures } = picturesApart(file);
  if (json.length > MOST_RECORD_BYTES)
    return {
      read: {
        ok: false,
        why: `This file has more than ${MOST_RECORD_BYTES / 1e6} MB beside its photos, which no job has. Nothing was taken in.`,
      },
      pictures: new Map(),
    };
  // A text of one byte to a letter: a dash among forty million letters would make two of each.
  const text = asciiJson(json).toString('latin1');
  const base64 = (photo: string) => sha256(pictures.get(photo) ?? Buffer.from(photo, 'base64'));
  return { read: readJobFile(text, { text: sha256, base64 }), pictures };
}

const file = ownBytes(workerData as Uint8Array<ArrayBuffer>);
parentPort!.postMessage(read(file), [file.buffer]);
