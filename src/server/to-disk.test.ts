/** @jest-environment node */
import fs from 'node:fs';
import path from 'node:path';
import { backUp } from './backup';
import { Desk } from './demo/desk';
import { restoreSteps } from './folder';

/** What was asked of the disk, in order: a name that is told of a file before its content is there may stand over nothing. */
const asked: string[] = [];
jest.mock('node:fs', () => {
  const real = jest.requireActual<typeof fs>('node:fs');
  const names = new Map<number, string>();
  const short = (name: fs.PathLike) => path.basename(String(name));
  return {
    ...real,
    openSync: (...given: Parameters<typeof real.openSync>) => {
      const handle = real.openSync(...given);
      names.set(handle, short(given[0]));
      return handle;
    },
    fsyncSync: (handle: number) => {
      asked.push(`on disk: ${names.get(handle)}`);
      real.fsyncSync(handle);
    },
    renameSync: (from: fs.PathLike, to: fs.PathLike) => {
      asked.push(`named: ${short(to)}`);
      real.renameSync(from, to);
    },
    rmSync: (name: fs.PathLike, options?: fs.RmOptions) => {
      if (short(name) === 'restore.json') asked.push('plan done');
      real.rmSync(name, options);
    },
  };
});

test('a backup is on the disk before it has its name, and so has a restored database; the plan of a restore is there before anything moves', async () => {
  const desk = await Desk.open();
  try {
    const backup = desk.file('night.backup');
    asked.length = 0;
    backUp(desk.file('hard-pedal.sqlite'), backup);
    const folder = path.basename(desk.folder);
    expect(asked).toEqual(['on disk: night.backup.part', 'named: night.backup', `on disk: ${folder}`]);
    const elsewhere = desk.file('elsewhere');
    fs.mkdirSync(elsewhere);
    fs.writeFileSync(path.join(elsewhere, 'hard-pedal.sqlite'), 'old');
    asked.length = 0;
    for (const step of restoreSteps(elsewhere, backup, 'now')) step();
    expect(asked).toEqual([
      'on disk: hard-pedal.sqlite.restoring.part',
      'named: hard-pedal.sqlite.restoring',
      'on disk: elsewhere',
      'on disk: restore.json',
      'named: hard-pedal.sqlite.before-now',
      'named: hard-pedal.sqlite',
      'on disk: elsewhere',
      'plan done',
    ]);
    expect(fs.readFileSync(path.join(elsewhere, 'hard-pedal.sqlite')).equals(fs.readFileSync(backup))).toBe(
      true,
    );
  } finally {
    await desk.close();
  }
});
