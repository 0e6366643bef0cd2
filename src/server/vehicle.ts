import {
  closeSync,
  existsSync,
  fsyncSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  writeSync,
} from 'node:fs';
import path from 'node:path';
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import type { Heard } from '@/core/contract/vehicle-interface';
import { FAMILIES } from '@/core/families/registry';
import { nextAction } from '@/core/procedure/next-action';
import { stateOf } from '@/core/records/judged-run';
import { SI_SYMBOL } from '@/core/quantities/si-symbol';
import {
  identifierMapSchema,
  USUAL_MAP,
  type IdentifierField,
  type IdentifierMap,
} from '@/core/shop/identifier-map';
import { NO_VEHICLE, type VehicleControl, type VehicleMessage } from '@/core/shop/vehicle-live';
import type { Stored } from '@/core/records/views';
import { csvOf } from './csv';
import { dataFolder } from './folder';
import { eventStream } from './event-stream';
import { append, linksOf, writtenFrom } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { findRun } from './runs';
import { readSettings } from './shelf';
import { conflict, missing, type ShelfEntry } from './store';
import { VehicleLine, type ControlKept } from './vehicle-line';

/** Chain of the identifier map in the journal: the last one counts, those before it stay. */
const MAP_CHAIN = 'identifier-map';

/** The map that vehicles are read by: the shop's own, or the usual one. */
export async function identifierMap(db: Knex): Promise<Stored<IdentifierMap>> {
  const links = await linksOf(db, MAP_CHAIN);
  const last = links.at(-1);
  const entry = last && writtenFrom<ShelfEntry>(last).entry;
  return {
    id: MAP_CHAIN,
    version: links.length,
    body: entry?.type === 'stored' ? (entry.body as IdentifierMap) : USUAL_MAP,
  };
}

/** Puts another map in the place of the one that there is. */
export async function writeMap(
  db: Knex,
  version: number,
  input: unknown,
  at: string,
): Promise<Outcome<Stored<IdentifierMap>>> {
  const parsed = identifierMapSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  return db.transaction(async (trx) => {
    const current = await identifierMap(trx);
    if (current.version !== version) return conflict('identifier map', current);
    await append(trx, MAP_CHAIN, { id: randomUUID(), at, entry: { type: 'stored', body: parsed.data } });
    return done({ id: MAP_CHAIN, version: version + 1, body: parsed.data });
  });
}

/** Written beside the database, and on the disk before anything is asked of a vehicle. */
const CONTROL_FILE = 'vehicle-control.json';
const controlFile = () => path.join(/*turbopackIgnore: true*/ dataFolder(), CONTROL_FILE);
const onDisk: ControlKept = {
  left: () => {
    const file = controlFile();
    return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as VehicleControl) : null;
  },
  keep: (control) => {
    // Under another name until it is whole: half of it would be read by the next start.
    const unfinished = `${controlFile()}.part`;
    const file = openSync(unfinished, 'w');
    writeSync(file, JSON.stringify(control));
    fsyncSync(file);
    closeSync(file);
    renameSync(unfinished, controlFile());
  },
  forget: () => rmSync(controlFile(), { force: true }),
};

const held = globalThis as typeof globalThis & { hardPedalVehicle?: VehicleLine };

/** The line to the vehicle interface that the settings name; null where they name none. */
export async function vehicleLine(db: Knex): Promise<VehicleLine | null> {
  const address = (await readSettings(db)).body.vehicle;
  const { body: map } = await identifierMap(db);
  const there = held.hardPedalVehicle;
  if (there && (there.address !== address || JSON.stringify(there.map) !== JSON.stringify(map)))
    await hangUpVehicle();
  if (address === '') return null;
  held.hardPedalVehicle ??= new VehicleLine(address, map, onDisk);
  return held.hardPedalVehicle;
}

/** Lets go of the vehicle: for an end of the application, and of a test. */
export async function hangUpVehicle(): Promise<void> {
  const { hardPedalVehicle: there } = held;
  held.hardPedalVehicle = undefined;
  await there?.stop();
}

/** A screen shows no more values than these. */
const MOST_READ = 100;

/** Events for a screen that looks on for a run: how it stands, and what the vehicle tells. */
export async function vehicleStream(
  db: Knex,
  query: URLSearchParams,
  signal: AbortSignal,
): Promise<ReadableStream<Uint8Array>> {
  const to = await vehicleLine(db);
  const run = query.get('run') ?? '';
  const reads = (query.get('reads') ?? '').split(',').filter(Boolean).slice(0, MOST_READ);
  return eventStream<VehicleMessage>(
    signal,
    (tell) => {
      if (to) return to.watch({ run, reads, tell });
      tell({ type: 'status', status: NO_VEHICLE });
    },
    'heard',
  );
}

/** What is asked of the vehicle: a state of one value, or that it has its own way again. */
export const controlSchema = z.strictObject({
  run: z.uuid(),
  value: z.string().min(1).max(40),
  state: z.string().min(1).max(80).nullable(),
});

const no = (message: string) => refused({ code: 'refused', message });
export const NO_ADDRESS = 'No vehicle interface is set: do it by hand, as the step says.';

/** Has the vehicle do something in a run that is open, or gives it back. */
export async function controlVehicle(db: Knex, input: unknown, now: string): Promise<Outcome<unknown>> {
  const parsed = controlSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { run: id, value, state } = parsed.data;
  const to = await vehicleLine(db);
  if (!to) return no(NO_ADDRESS);
  if (state === null) {
    await to.giveBack();
    return done(to.status);
  }
  const run = await findRun(db, id);
  if (!run) return missing('run');
  if (run.finishedAt) return no('This test is over: nothing is controlled for it.');
  // A step asks for it once its cautions were read, and for nothing else.
  const action = nextAction(run.context.procedure, stateOf(run));
  const asks = action.kind === 'item' ? FAMILIES[run.kind].throughInterface?.[action.step.id]?.asks : null;
  if (asks?.value !== value || asks.state !== state)
    return no('The step at hand asks for nothing of the kind: nothing is controlled.');
  const why = await to.take(id, value, state, now);
  return why ? no(why) : done(to.status);
}

/** Somebody has read what became of a control. */
export async function seenControl(db: Knex): Promise<Outcome<unknown>> {
  const to = await vehicleLine(db);
  if (!to) return no(NO_ADDRESS);
  to.seen();
  return done(to.status);
}

/** What was heard for a run, as CSV: a column to each value of the map that was told, SI with its unit named, words for states. */
export async function heardCsv(db: Knex, run: string): Promise<Outcome<{ name: string; body: string }>> {
  const to = await vehicleLine(db);
  const log = to?.heardFor(run) ?? [];
  if (!to || log.length === 0)
    return no('Nothing was heard from the vehicle for this test since the application began.');
  const columns = to.map.identifiers
    .flatMap(({ fields }) => fields.flatMap(columnsOf))
    .filter(({ id }) => log.some(({ values }) => values[id] !== undefined));
  const rows = log.map(({ t_s, values, asked }) => [
    t_s.toFixed(2),
    ...columns.map(({ id, print }) => print(values[id] ?? null)),
    asked.join(' '),
  ]);
  const head = ['Time (s)', ...columns.map(({ title }) => title), 'Under control'];
  return done({ name: `vehicle-${run.slice(0, 8)}.csv`, body: csvOf([head, ...rows]) });
}

type Told = Heard['values'][string];
interface Column {
  readonly id: string;
  readonly title: string;
  readonly print: (value: Told) => string;
}

function columnsOf(field: IdentifierField): Column[] {
  const number = (value: Told) => (typeof value === 'number' ? String(Number(value.toPrecision(8))) : '');
  switch (field.kind) {
    case 'number': {
      const unit = SI_SYMBOL[field.quantity];
      return [{ id: field.id, title: `${field.name}${unit ? ` (${unit})` : ''}`, print: number }];
    }
    case 'state': {
      const word = (value: Told) => field.states.find((state) => state.value === value)?.name ?? '';
      return [{ id: field.id, title: field.name, print: word }];
    }
    case 'flags':
      return field.flags.map(({ id, name }) => ({
        id,
        title: name,
        print: (value: Told) => (value === null ? '' : value ? '1' : '0'),
      }));
  }
}
