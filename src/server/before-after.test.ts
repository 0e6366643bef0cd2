/** @jest-environment node */
import { benchOf } from '@/core/scenarios/bench';
import { recordOf } from '@/core/scenarios/job-records';
import { movedBetween } from '@/core/documents/before-after';
import { movedBetweenTests } from './before-after';
import { roomOf } from './room';

const servo = benchOf('rod-servo');
const [before, after] = [servo.faultyTruth('torn-piston', 0.9), servo.truthWith()].map(
  (truth) => recordOf(truth, servo.contextWith(), [], 'rod-servo').runs[0]!,
);

test('what changed between two tests is worked out beside the server: others are answered meanwhile', async () => {
  let answered = 0;
  const others = setInterval(() => (answered += 1), 5);
  const moved = await movedBetweenTests(before!, after!);
  clearInterval(others);
  expect(answered).toBeGreaterThan(0);
  expect(moved).toEqual(movedBetween(before!, after!));
});

test('where there is no room for it, that is said in place of what changed', async () => {
  let end!: () => void;
  const others = new Promise<void>((done) => (end = done));
  const inside = Array.from({ length: 6 }, () => roomOf('diagnoses').within(() => others));
  const moved = await movedBetweenTests(before!, after!);
  end();
  await Promise.all(inside);
  expect(moved).toEqual({ ok: false, why: expect.stringMatching(/busy with other questions/) as string });
});
