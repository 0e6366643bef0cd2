import { connect } from 'node:net';
import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import { parseAddress, type Address } from '@/core/shop/address';
import { handsSchema, simUnitSchema } from '@/core/shop/live';
import { Lines } from '@/devices/logger/protocol';
import { link } from './live';
import { done, invalid, refused, type Outcome } from './outcome';
import { findRun } from './runs';

/** A machine that is busy with more than the bench takes its time to answer, ms. */
const ANSWER_MS = 5000;
const NOT_SIMULATED = 'The bench is a real one: work it by hand.';

/** Works the simulated bench: handle, pump, valve, or what stands on it. */
export async function workBench(db: Knex, input: unknown): Promise<Outcome<unknown>> {
  const parsed = z
    .union([z.strictObject({ hands: handsSchema }), z.strictObject({ unit: simUnitSchema })])
    .safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const line = await link(db);
  if (!line?.status.simulated) return refused({ code: 'refused', message: NOT_SIMULATED });
  const unit = 'hands' in parsed.data ? null : await unitFor(db, parsed.data.unit);
  const kind = unit?.kind;
  if (kind && !FAMILIES[kind].motion)
    return refused({
      code: 'refused',
      message: `${FAMILIES[kind].name}: the simulated bench has none of these.`,
    });
  const message = unit ? { unit } : parsed.data;
  const at = parseAddress(line.address);
  const hands = at && parseAddress(`${at.host}:${at.port + 1}`);
  const answer = hands && (await say(hands, message));
  if (answer?.ok) return done(answer);
  return refused({ code: 'refused', message: answer?.why ?? 'The simulated bench does not answer.' });
}

async function unitFor(
  db: Knex,
  { run, ...rest }: z.infer<typeof simUnitSchema>,
): Promise<Readonly<Record<string, unknown>> & { readonly kind?: FamilyKind }> {
  const found = run ? await findRun(db, run) : null;
  if (!found) return rest.kind ? { ...rest, profile: FAMILIES[rest.kind].typical } : rest;
  const { barometer_Pa, temperature_K } = found.context.conditions;
  return { ...rest, kind: found.kind, profile: found.context.profile, room: { barometer_Pa, temperature_K } };
}

/** What the hands answer: whether it is done, with what is so then, or why not. */
const answerSchema = z.looseObject({ ok: z.boolean(), why: z.string().max(400).optional() });
type HandsSay = z.infer<typeof answerSchema>;

/** Says one thing to the hands at the simulated bench. @returns null where nothing that can be read answers in time */
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
