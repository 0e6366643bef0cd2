/** @jest-environment node */
import fc from 'fast-check';
import { bench, contextWith, profile, truthWith } from '../scenarios/bench';
import {
  findingSchema,
  fittingSchema,
  jobEntrySchema,
  photoSchema,
  workSchema,
  type JobEntry,
} from './entries';
import {
  admitEntry,
  jobRecord,
  recordRefusalSentence,
  withEntry,
  type JobRecord,
  type RecordRefusal,
} from './job-record';
import { identityOf } from '../scenarios/job-records';
import { jobQuerySchema } from './job-query';
import { searchWords } from './list-query';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const AT = '2026-11-23T15:00:00.000Z';
const { events } = bench(truthWith());
const context = contextWith();

const intake = (tag = 'GF-7'): JobEntry => ({
  type: 'taken-in',
  job: {
    tag,
    kind: 'remote-vacuum',
    profileId: uuid(1),
    from: '',
    complaint: '',
    fluid: 'dot4',
    promisedOn: null,
  },
  profile: { id: uuid(1), kind: 'remote-vacuum', revision: 1, body: profile },
});
const started = (run: string, continues: string | null = null): JobEntry => ({
  type: 'run-started',
  run,
  kind: 'remote-vacuum',
  revision: 1,
  context: context as never,
  continues,
});
const finding: JobEntry = {
  type: 'finding',
  finding: { kind: 'noise', point: null, words: 'Hiss', fault: null },
};
const work: JobEntry = {
  type: 'work',
  work: { part: 'diaphragm', did: 'replaced', reason: '', provenance: 'new', serial: '' },
};
const photo: JobEntry = {
  type: 'photo',
  photo: { sha256: 'a'.repeat(64), width: 4, height: 3, bytes: 99, point: null, caption: '' },
};
const fitting: JobEntry = { type: 'fitting', fitting: { bleeding: 'wheels-first', fluid: 'dot4' } };
const signed: JobEntry = { type: 'signed', technician: 'P. Tarn', head: 'b'.repeat(64) };
const corrected: JobEntry = { type: 'corrected', about: null, words: 'Tug, not van.', technician: 'P. Tarn' };
const reopened: JobEntry = { type: 'reopened', reason: 'Back again' };
const deleted = (is: boolean): JobEntry => ({ type: 'deleted', deleted: is });
const archived = (is: boolean): JobEntry => ({ type: 'archived', archived: is });
const ranThrough = (run: string): JobEntry[] => [
  started(run),
  ...events.map((event): JobEntry => ({ type: 'run-event', run, event })),
];

const recordOf = (...entries: JobEntry[]): JobRecord =>
  jobRecord(
    'job',
    entries.map((entry, i) => ({ id: uuid(10 + i), place: i + 1, at: AT, entry })),
  )!;

describe('what may be added to a record', () => {
  const cases: [string, JobRecord | null, JobEntry, RecordRefusal | null][] = [
    ['nothing before the unit is taken in', null, finding, 'not-begun'],
    ['taking in begins it', null, intake(), null],
    ['and happens once', recordOf(intake()), intake(), 'begun'],
    ['a finding', recordOf(intake()), finding, null],
    ['a test', recordOf(intake()), started(uuid(2)), null],
    [
      'no second test while one is running',
      recordOf(intake(), started(uuid(2))),
      started(uuid(3)),
      'run-open',
    ],
    ['no signature while one is running', recordOf(intake(), started(uuid(2))), signed, 'run-open'],
    ['a signature after it', recordOf(intake(), ...ranThrough(uuid(2))), signed, null],
    [
      'no event of a test that is not there',
      recordOf(intake()),
      { type: 'run-event', run: uuid(9), event: events[0]! },
      'no-such-run',
    ],
    [
      'nothing taken back that is not there',
      recordOf(intake()),
      { type: 'withdrawn', entry: uuid(99) },
      'no-such-entry',
    ],
    [
      'the intake itself is not taken back',
      recordOf(intake()),
      { type: 'withdrawn', entry: uuid(10) },
      'no-such-entry',
    ],
    ['an identity that no photo shows', recordOf(intake()), identityOf(null), null],
    ['one that a photo of this job shows', recordOf(intake(), photo), identityOf(uuid(11)), null],
    ['none of a photo that is not there', recordOf(intake(), work), identityOf(uuid(11)), 'no-such-photo'],
    ['no identity once signed', recordOf(intake(), signed), identityOf(null), 'signed'],
    ['no finding once signed', recordOf(intake(), signed), finding, 'signed'],
    ['no work once signed', recordOf(intake(), signed), work, 'signed'],
    ['no photo once signed', recordOf(intake(), signed), photo, 'signed'],
    [
      'no change of the intake once signed',
      recordOf(intake(), signed),
      { ...intake(), type: 'changed' } as JobEntry,
      'signed',
    ],
    ['no second signature over the same', recordOf(intake(), signed), signed, 'signed'],
    ['a correction once signed', recordOf(intake(), signed), corrected, null],
    ['no correction before', recordOf(intake()), corrected, 'not-signed'],
    ['opening again once signed', recordOf(intake(), signed), reopened, null],
    ['no opening of what is open', recordOf(intake()), reopened, 'not-signed'],
    ['a finding once opened again', recordOf(intake(), signed, reopened), finding, null],
    ['archiving a signed job', recordOf(intake(), signed), archived(true), null],
    ['deleting a signed job', recordOf(intake(), signed), deleted(true), null],
    ['nothing in a deleted job', recordOf(intake(), deleted(true)), finding, 'deleted'],
    ['but putting it back', recordOf(intake(), deleted(true)), deleted(false), null],
    ['no deleting twice', recordOf(intake(), deleted(true)), deleted(true), 'deleted'],
    ['no putting back of what is there', recordOf(intake()), deleted(false), 'not-deleted'],
  ];
  test.each(cases)('%s', (_what, record, entry, refusal) => {
    expect(admitEntry(record, entry)).toBe(refusal);
    if (refusal) expect(recordRefusalSentence(refusal)).toMatch(/^[A-Z].*\.$/);
  });
  test('a record that begins with anything else is a mistake of the caller', () => {
    expect(() => withEntry('job', null, { id: uuid(1), place: 1, at: AT, entry: finding })).toThrow(
      RangeError,
    );
    expect(jobRecord('job', [])).toBeNull();
  });
});

describe('what a record comes to', () => {
  test('keeps what was taken back, marked, and puts it back', () => {
    const base = [intake(), finding, work, photo, identityOf(uuid(13))];
    const gone = recordOf(
      ...base,
      { type: 'withdrawn', entry: uuid(11) },
      { type: 'withdrawn', entry: uuid(13) },
      { type: 'withdrawn', entry: uuid(14) },
    );
    expect([gone.findings, gone.work, gone.photos, gone.identities].map(([one]) => one!.withdrawn)).toEqual([
      true,
      false,
      true,
      true,
    ]);
    const back = recordOf(
      ...base,
      { type: 'withdrawn', entry: uuid(11) },
      { type: 'put-back', entry: uuid(11) },
    );
    expect(back.findings[0]).toMatchObject({ withdrawn: false, what: { words: 'Hiss' } });
  });
  test('a changed intake is a new version; the last one counts', () => {
    const changed = { ...intake('GF-8'), type: 'changed' } as JobEntry;
    expect(recordOf(intake(), changed)).toMatchObject({ version: 2, job: { tag: 'GF-8' }, length: 2 });
  });
  test('a run is finished by its last event, and a re-test begins with its readings', () => {
    const record = recordOf(intake(), ...ranThrough(uuid(2)), started(uuid(3), uuid(2)));
    const [first, second] = record.runs;
    expect(first!.finishedAt).toBe(events.at(-1)!.at);
    expect(second).toMatchObject({ continues: uuid(2), finishedAt: null, jobId: 'job' });
    expect(second!.events).toEqual(events.filter(({ type }) => type !== 'finished'));
  });
  test('signatures, corrections and reopenings stand one after another', () => {
    const record = recordOf(intake(), fitting, signed, corrected, reopened, finding, signed);
    expect(record).toMatchObject({ signed: true, fitting: { fluid: 'dot4' } });
    expect(record.signatures.map(({ place }) => place)).toEqual([3, 7]);
    expect([record.corrections.length, record.reopenings.length]).toEqual([1, 1]);
  });
  test('is the same entry by entry as all at once', () => {
    const some = [finding, work, photo, identityOf(null), fitting, archived(true), archived(false)];
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...some), { maxLength: 12 }), (rest) => {
        const all = [intake(), ...rest].map((entry, i) => ({
          id: uuid(10 + i),
          place: i + 1,
          at: AT,
          entry,
        }));
        const stepwise = all.reduce<JobRecord | null>((record, one) => withEntry('job', record, one), null);
        expect(stepwise).toEqual(jobRecord('job', all));
        expect(stepwise!.length).toBe(all.length);
      }),
    );
  });
});

describe('what can be written down', () => {
  const refusal = (
    schema: { safeParse: (x: unknown) => { error?: { issues: { message: string }[] } } },
    value: unknown,
  ) =>
    schema
      .safeParse(value)
      .error?.issues.map(({ message }) => message)
      .join(' ') ?? '';
  test.each([
    [findingSchema, { kind: 'smell', point: null, words: 'x', fault: null }, /choose one/],
    [
      findingSchema,
      { kind: 'noise', point: null, words: 'x'.repeat(20_001), fault: null },
      /20 000 characters/,
    ],
    [
      workSchema,
      { part: '', did: 'replaced', reason: '', provenance: 'new', serial: '' },
      /Part or line: choose one/,
    ],
    [
      workSchema,
      { part: 'switch', did: 'replaced', reason: '', provenance: null, serial: '' },
      /new, reconditioned/,
    ],
    [
      workSchema,
      { part: 'switch', did: 'refused', reason: '', provenance: null, serial: '' },
      /why it was refused/,
    ],
    [photoSchema, { sha256: '../x', width: 1, height: 1, bytes: 1, point: null, caption: '' }, /Invalid/],
    [fittingSchema, { bleeding: 'wheels-first', fluid: '' }, /choose one/],
    [jobEntrySchema, { type: 'burnt' }, /Invalid/],
    [jobEntrySchema, { ...finding, extra: 1 }, /extra/],
  ])('%#: is refused with the reason', (schema, value, reason) => {
    expect(refusal(schema, value)).toMatch(reason);
  });
  test('brakes that are bled circuit by circuit have no order to choose', () =>
    expect(fittingSchema.safeParse({ bleeding: null, fluid: 'mineral' }).success).toBe(true));
  test('a part refused or used again needs no provenance', () => {
    const used = { part: 'switch', did: 'reused', reason: '', provenance: null, serial: '' };
    expect(workSchema.safeParse(used).success).toBe(true);
  });
  test('every entry reads back from its own JSON', () => {
    for (const entry of [
      intake(),
      finding,
      work,
      photo,
      fitting,
      signed,
      corrected,
      reopened,
      ...ranThrough(uuid(2)),
    ])
      expect(jobEntrySchema.parse(JSON.parse(JSON.stringify(entry)))).toEqual(
        JSON.parse(JSON.stringify(entry)),
      );
  });
});

describe('a question to the list of jobs', () => {
  test('words are letters and digits of any script; marks that a search language knows are none', () => {
    expect(searchWords('GF-0418 "hiss*" OR Öl')).toEqual(['GF', '0418', 'hiss', 'OR', 'Öl']);
    expect(searchWords('*** --')).toEqual([]);
  });
  test('an address with nonsense in it asks for everything', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.constantFrom('q', 'show', 'sort', 'page', 'from', 'verdict', 'kind'),
          fc.jsonValue(),
        ),
        (asked) => {
          const read = jobQuerySchema.parse(asked);
          expect(read.page).toBeGreaterThanOrEqual(1);
          expect(typeof read.q).toBe('string');
        },
      ),
    );
  });
});
