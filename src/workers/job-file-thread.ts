import { createHash } from 'node:crypto';
import { parentPort, workerData } from 'node:worker_threads';
import { readJobFile } from '@/core/records/job-file';
import { asciiJson } from './ascii-json';

const sha256 = (data: string | Buffer) => createHash('sha256').update(data).digest('hex');
const base64 = (text: string) => sha256(Buffer.from(text, 'base64'));

/**
 * JSON that was handed over, as a text of one byte to a letter: a dash among a hundred million letters would make two of each. What is
 * beyond ASCII is written as JSON may write it. The bytes are let go of, and not held beside it as the data of the thread are.
 */
function textOf({ buffer, byteOffset, byteLength }: Uint8Array<ArrayBuffer>): string {
  const own = structuredClone(buffer, { transfer: [buffer] });
  return asciiJson(Buffer.from(own, byteOffset, byteLength)).toString('latin1');
}

parentPort!.postMessage(readJobFile(textOf(workerData as Uint8Array<ArrayBuffer>), { text: sha256, base64 }));
