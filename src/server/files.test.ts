/** @jest-environment node */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import type { Knex } from 'knex';
import sharp from 'sharp';
import type { Document } from '@/core/documents/document';
import { judgedRun } from '@/core/records/judged-run';
import { reportDocument } from '@/core/documents/report-document';
import { contextWith, faultyTruth } from '@/core/scenarios/bench';
import { PRINTING, recordOf } from '@/core/scenarios/job-records';
import { Desk, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { bytesOf, paperOf } from './request';
import { pdfOf } from './pdf';
import { exportProfile, importProfile } from './profile-files';
import { findRunWithRecord } from './record';
import { chartFile, installationPdf, readingsCsv, reportPdf } from './reports';
import { markRunning, runningServer } from './running';
import { findProfile, listProfiles } from './shelf';

let desk: Desk;
let db: Knex;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());

const text = (pdf: Buffer | string) => Buffer.from(pdf).toString('latin1');
const pages = (pdf: Buffer | string) => text(pdf).match(/\/Type \/Page\b/g)!.length;

describe('documents as PDF', () => {
  const document: Document = {
    name: 'A test',
    blocks: [
      { kind: 'title', text: 'Ω ≤ Ł', aside: ['GF-1'] },
      { kind: 'page-break' },
      {
        kind: 'table',
        name: 'T',
        columns: ['A', 'B'],
        widths: [50, 50],
        rows: Array.from({ length: 120 }, (_, i) => [{ text: `${i}` }, { text: 'b', small: ['c'] }]),
      },
    ],
  };
  test('a long table goes on over pages; the paper is the one asked for', async () => {
    const a4 = await pdfOf(document, 'A4');
    expect(text(a4)).toContain('[0 0 595.28 841.89]');
    expect(pages(a4)).toBeGreaterThanOrEqual(4);
    expect(text(await pdfOf(document, 'LETTER'))).toContain('[0 0 612 792]');
    expect(paperOf(new Request('http://127.0.0.1/x?paper=letter'))).toBe('LETTER');
    expect(paperOf(new Request('http://127.0.0.1/x?paper=papyrus'))).toBe('A4');
  });
  test('the customer’s page is one page, whatever was found, done, said and photographed', async () => {
    const jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#445566' } })
      .jpeg()
      .toBuffer();
    const seal = 'ab'.repeat(32);
    const words = fc
      .integer({ min: 1, max: 900 })
      .map((length) => 'Seeps where wet. '.repeat(60).slice(0, length));
    const finding = words.map((text) => ({
      type: 'finding' as const,
      finding: { kind: 'seep' as const, point: 'end-cap', words: text, fault: null },
    }));
    const work = words.map((reason) => ({
      type: 'work' as const,
      work: { part: 'diaphragm', did: 'refused' as const, reason, provenance: null, serial: '' },
    }));
    const photo = { sha256: seal, width: 40, height: 30, bytes: 9, point: null, caption: 'W'.repeat(200) };
    const shop = { shopName: 'Brake room', shopAddress: 'Slip Road 3', shopTelephone: '55', logo: seal };
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.oneof(finding, work), { maxLength: 24 }),
        fc.integer({ min: 0, max: 9 }),
        fc.constantFrom('A4' as const, 'LETTER' as const),
        async (noted, count, size) => {
          const pictures = Array.from({ length: count }, () => ({ type: 'photo' as const, photo }));
          const record = recordOf(faultyTruth('cup-bypass', 1), contextWith(), [...noted, ...pictures]);
          const run = record.runs[0]!;
          const { blocks, name } = reportDocument(record, run, judgedRun(run), { ...PRINTING, shop });
          const page = blocks.slice(
            0,
            blocks.findIndex(({ kind }) => kind === 'page-break'),
          );
          const pdf = await pdfOf({ name, blocks: page }, size, new Map([[seal, jpeg]]));
          expect(pages(pdf)).toBe(1);
          expect(text(pdf)).toContain('/Subtype /Image');
        },
      ),
      { numRuns: 25 },
    );
  });
  test('carries its own font, no picture of the chart, and its name', async () => {
    const run = (await desk.jobOf('GF-0415')).runs[0]!.id;
    const { name, body } = taken(await reportPdf(db, run, 'A4'));
    expect(name).toBe('GF-0415 bench test.pdf');
    expect(text(body)).toContain('/FontFile');
    expect(text(body)).not.toContain('/Subtype /Image');
  });
  test('the sheet for the fitter goes with the report once it was made', async () => {
    const repaired = await desk.jobOf('GF-0418');
    const report = taken(await reportPdf(db, repaired.runs[0]!.id, 'A4')).body;
    const sheet = taken(await installationPdf(db, repaired.id, 'A4')).body;
    // A page for the customer, at least one of numbers, and the sheet.
    expect(pages(report)).toBeGreaterThanOrEqual(2 + pages(sheet));
    expect(taken(await installationPdf(db, (await desk.jobOf('GF-0412')).id, 'A4')).name).toBe(
      'GF-0412 installation.pdf',
    );
    expect(whyNot(await installationPdf(db, 'none', 'A4'))).toMatch(/no such job/);
    expect(whyNot(await reportPdf(db, 'none', 'A4'))).toMatch(/no such run/);
  });
});

describe('a run as files', () => {
  test('the chart as PNG has words in it: it is drawn with the font that ships', async () => {
    const run = (await desk.jobOf('GF-0415')).runs[0]!.id;
    const png = taken(await chartFile(db, run, 'png')).body as Buffer;
    const { data, info } = await sharp(png)
      .extract({ left: 400, top: 620, width: 480, height: 40 })
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    // The name of the axis stands there: dark on white.
    expect(info.width).toBe(480);
    expect(Math.min(...data)).toBeLessThan(90);
    expect(taken(await chartFile(db, run, 'svg')).body).toMatch(/^<svg/);
  });
  test('a run in which nothing was measured with its supply on has no chart, and says so', async () => {
    const run = (await desk.jobOf('GF-0415')).runs[0]!.id;
    expect(whyNot(await chartFile(db, 'none', 'svg'))).toMatch(/no such run/);
    expect((await findRunWithRecord(db, run))!.record.job.tag).toBe('GF-0415');
    expect(await findRunWithRecord(db, 'none')).toBeNull();
  });
  test('every reading is a line of the CSV, under a head', async () => {
    const run = (await desk.jobOf('GF-0415')).runs[0]!.id;
    const lines = (taken(await readingsCsv(db, run)).body as string).split('\r\n').filter(Boolean);
    const found = (await findRunWithRecord(db, run))!;
    expect(lines).toHaveLength(1 + found.run.events.filter(({ type }) => type === 'captured').length);
    expect(lines[0]).toMatch(/^\uFEFFTime,Step,Item,Port,Value/);
  });
});

describe('profile files', () => {
  test('a profile goes out and comes in as the same profile, under a name of its own', async () => {
    const [profile] = await listProfiles(db);
    const { body } = taken(await exportProfile(db, profile!.id));
    const { id } = taken(await importProfile(db, body, NOW));
    expect(id).not.toBe(profile!.id);
    expect((await findProfile(db, id))!.body).toEqual(profile!.body);
    expect(whyNot(await exportProfile(db, 'none'))).toMatch(/no such profile/);
  });
  test.each([
    ['{', /not whole JSON/],
    ['{"format":"recipe"}', /not a Hard Pedal profile file/],
    ['{"format":"hard-pedal-profile","version":3}', /newer/],
    ['{"format":"hard-pedal-profile","version":1,"profile":{"kind":"steam"}}', /not as it should be/],
    [
      '{"format":"hard-pedal-profile","version":1,"profile":{"kind":"remote-vacuum","name":"X"}}',
      /not as it should be/,
    ],
  ])('%s is refused', async (file, reason) => {
    const before = (await listProfiles(db)).length;
    const why = whyNot(await importProfile(db, file, NOW));
    expect(why).toMatch(reason);
    expect(why).toMatch(/Nothing was taken in\.$/);
    expect(await listProfiles(db)).toHaveLength(before);
  });
});

describe('the edges', () => {
  test('a body is read to its limit and not a byte further', async () => {
    const request = (bytes: number) =>
      new Request('http://127.0.0.1/x', { method: 'POST', body: new Uint8Array(bytes) });
    expect((await bytesOf(request(1000), 1000)).length).toBe(1000);
    await expect(bytesOf(request(1001), 1000)).rejects.toThrow(/too large/);
    expect((await bytesOf(new Request('http://127.0.0.1/x'), 10)).length).toBe(0);
  });
  test('a running application is known by its process, one that was killed is not', () => {
    expect(runningServer(desk.folder)).toBeNull();
    markRunning(desk.folder);
    expect(runningServer(desk.folder)).toBe(process.pid);
    // No process has this number: the greatest that Linux gives out is 4 194 304.
    writeFileSync(path.join(desk.folder, 'running.pid'), '4194305');
    expect(runningServer(desk.folder)).toBeNull();
  });
});
