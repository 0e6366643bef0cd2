import { createInterface } from 'node:readline/promises';
import { database } from '../database';
import { pinSchema, setPin } from '../pins';
import { listTechnicians } from '../technicians';
import { atTheCommandLine, shopHere } from './at-the-command-line';

/** `npm run pin -- NAME`: a PIN for a technician who has none here, or has forgotten it. The application is stopped. */
async function main() {
  const name = process.argv.slice(2).join(' ').trim();
  shopHere();
  const db = await database();
  const all = await listTechnicians(db);
  const found = all.find((one) => one.name === name);
  if (!found)
    throw new Error(
      `Say whose: npm run pin -- NAME. There are: ${all.map((one) => one.name).join(', ') || 'none'}.`,
    );
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const pin = pinSchema.safeParse(await ask.question(`New PIN of ${name}: `));
  ask.close();
  if (!pin.success) throw new Error(pin.error.issues[0]!.message);
  await setPin(db, found.id, pin.data);
  await db.destroy();
  console.log(`${name} has a new PIN.`);
}

atTheCommandLine(main);
