import { connect } from 'node:net';
import { z } from 'zod';
import type { Address } from '@/core/shop/address';
import { parseAddress } from '@/core/shop/address';
import { Lines } from '@/devices/logger/protocol';

/** A machine that is busy with more than the bench takes its time to answer, ms. */
const ANSWER_MS = 5000;

/** What the hands answer: whether it is done, with what is so then, or why not. */
const answerSchema = z.looseObject({
  ok: z.boolean(),
  why: z.string().max(400).optional(),
  /** What lies there, as whoever put it there called it. */
  label: z.string().max(400).nullish(),
});
type HandsSay = z.infer<typeof answerSchema>;

/** Says one thing to the hands at a simulated bench, by the address of its logger. @returns null where nothing that can be read answers in time */
export async function sayToHands(logger: string, message: object): Promise<HandsSay | null> {
  const at = parseAddress(logger);
  // Its hands are on the port above.
  const hands = at && parseAddress(`${at.host}:${at.port + 1}`);
  return hands && say(hands, message);
}

function say(at: Address, message: object): Promise<HandsSay | null> {
  return new Promise((resolve) => {
    const socket = connect(at);
    const lines = new Lines();
    const end = (answer: HandsSay | null) => {
      clearTimeout(timer);
      socket.destroy();
      resolve(answer);
    };
    // From the question on: what dribbles has no more time than what is silent.
    const timer = setTimeout(() => end(null), ANSWER_MS);
    socket.setEncoding('utf8');
    socket.on('error', () => end(null));
    socket.on('close', () => end(null));
    socket.on('connect', () => socket.write(`${JSON.stringify(message)}\n`));
    socket.on('data', (text: string) => {
      const found = lines.push(text);
      if (!found) end(null);
      else if (found[0] !== undefined) end(answerIn(found[0]));
    });
  });
}

function answerIn(line: string): HandsSay | null {
  try {
    return answerSchema.safeParse(JSON.parse(line)).data ?? null;
  } catch {
    return null;
  }
}
