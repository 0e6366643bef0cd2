/** @jest-environment node */
import { benchOf, faultyTruth, truthWith } from '../scenarios/bench';
import { recordOf, uuid } from '../scenarios/job-records';
import { movedBetween, resultsBetween } from './before-after';

describe('before and after', () => {
  const runOf = (truth: ReturnType<typeof truthWith>) => recordOf(truth).runs[0]!;
  test('names the parameter by its name, and pairs the results', () => {
    const [before, after] = [runOf(faultyTruth('switch-out-of-range', 0.6)), runOf(truthWith())];
    const found = movedBetween(before, after);
    if (!found.ok) throw new Error(found.why);
    expect(found.parameters.filter(({ moved }) => moved).map(({ name }) => name)).toEqual([
      'Stop-lamp switch closes',
    ]);
    const lamp = resultsBetween(before, after).find(({ id }) => id === 'lamp-switch')!;
    expect([lamp.before!.verdict, lamp.after!.verdict]).toEqual(['fails', 'meets']);
  });
  test('of a rod-acting servo: the piston that was torn and renewed is named as the passage, and nothing else', () => {
    const servo = benchOf('rod-servo');
    const runWith = (truth: ReturnType<typeof truthWith>) =>
      recordOf(truth, servo.contextWith(), [], 'rod-servo').runs[0]!;
    const [before, after] = [runWith(servo.faultyTruth('torn-piston', 0.9)), runWith(servo.truthWith())];
    const found = movedBetween(before, after);
    if (!found.ok) throw new Error(found.why);
    const moved = found.parameters.filter((one) => one.moved).map(({ name }) => name);
    expect(moved).toEqual(['Passage between the sides']);
    const full = resultsBetween(before, after).find(({ id }) => id === 'full-force')!;
    expect(full.before!.verdict).toBe('fails');
  });
  test('of a vehicle: the results stand side by side, and why nothing is fitted is said', () => {
    const van = benchOf('vacuum-vehicle');
    const runWith = (truth: ReturnType<typeof van.truthWith>) =>
      recordOf(truth, van.contextWith(), [], 'vacuum-vehicle').runs[0]!;
    const [before, after] = [runWith(van.faultyTruth('hose-blocked', 0.9)), runWith(van.truthWith())];
    expect(movedBetween(before, after)).toMatchObject({
      ok: false,
      why: expect.stringMatching(/not for a whole vehicle/) as string,
    });
    const recovery = resultsBetween(before, after).find(({ id }) => id === 'recovery')!;
    expect([recovery.before!.verdict, recovery.after!.verdict]).toEqual(['fails', 'meets']);
  });
  test('a test broken off early: the results are shown, the parameters are not guessed', () => {
    const early = runOf(truthWith());
    const same = resultsBetween(early, early);
    // All of a result's readings are behind both: carried over. One of them taken anew, and it is a result of its own.
    const hold = same.find(({ before }) => (before?.captures.length ?? 0) > 1)!;
    expect(hold.carried).toBe(true);
    const [renamed] = hold.before!.captures;
    const anew = early.events.map((event) => (event.id === renamed ? { ...event, id: uuid(9001) } : event));
    const other = resultsBetween(early, { ...early, events: anew });
    expect(other.find(({ id }) => id === hold.id)!.carried).toBe(false);
    expect(other.filter(({ carried }) => carried).length).toBeGreaterThan(3);
    const broken = { ...early, events: early.events.slice(0, 25) };
    for (const [one, other] of [
      [broken, early],
      [early, broken],
    ] as const)
      expect(movedBetween(one, other)).toMatchObject({
        ok: false,
        why: expect.stringMatching(/too few readings/) as string,
      });
    expect(resultsBetween(broken, early).length).toBeGreaterThan(10);
  });
});
