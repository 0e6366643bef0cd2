import { Resvg } from '@resvg/resvg-js';
import type { Knex } from 'knex';
import type { Document } from '@/core/documents/document';
import { installationDocument } from '@/core/documents/installation-document';
import { judgedRun } from '@/core/records/judged-run';
import { plainColours } from '@/core/plot/plot';
import { ratioChart } from '@/core/documents/ratio-svg';
import { readingsTable } from '@/core/documents/readings-table';
import type { Printing } from '@/core/documents/printing';
import { reportDocument } from '@/core/documents/report-document';
import { doubtsOf, recordToPrint, runToPrint } from './altered';
import { csvOf } from './csv';
import { done, refused, type Outcome } from './outcome';
import { FONT_FILES, pdfOf, type PaperSize } from './pdf';
import { shownPictures } from './photos';
import { readSettings } from './shelf';
import { loggedIn } from './traces';

const two = (value: number) => String(value).padStart(2, '0');

/** Numbers in the bench's units, times by the bench's own clock. */
async function printing(db: Knex): Promise<Printing> {
  const { body } = await readSettings(db);
  return {
    set: body.unitSet,
    shop: body,
    day: (iso) => {
      const at = new Date(iso);
      return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
    },
    time: (iso) => {
      const at = new Date(iso);
      return `${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}`;
    },
  };
}

interface File {
  readonly name: string;
  readonly body: Buffer | string;
}

async function asPdf(db: Knex, document: Document, size: PaperSize): Promise<Outcome<File>> {
  const body = await pdfOf(document, size, await picturesOf(db, document));
  return done({ name: `${document.name}.pdf`, body });
}

/** Every picture that a document shows, by its seal. */
async function picturesOf(db: Knex, { blocks }: Document): Promise<Map<string, Buffer>> {
  const names = blocks.flatMap((block) =>
    block.kind === 'photos'
      ? block.photos.map(({ sha256 }) => sha256)
      : block.kind === 'letterhead'
        ? (block.logo ?? [])
        : [],
  );
  return shownPictures(db, names);
}

/** The report of a run, with the sheet for whoever fits the unit behind it where one was made. */
export async function reportOf(db: Knex, runId: string): Promise<Outcome<Document>> {
  const found = await runToPrint(db, runId);
  if (!found.ok) return found;
  const { record, run } = found.value;
  const how = await printing(db);
  const report = reportDocument(
    record,
    run,
    judgedRun(run),
    how,
    await loggedIn(db, runId),
    await doubtsOf(db, record),
  );
  const sheet = record.fitting ? installationDocument(record, how).blocks : [];
  const blocks =
    sheet.length > 0 ? [...report.blocks, { kind: 'page-break' } as const, ...sheet] : report.blocks;
  return done({ ...report, blocks });
}

/** The same as PDF. */
export async function reportPdf(db: Knex, runId: string, size: PaperSize): Promise<Outcome<File>> {
  const report = await reportOf(db, runId);
  return report.ok ? asPdf(db, report.value, size) : report;
}

/** The sheet for whoever fits the unit, as PDF. */
export async function installationPdf(db: Knex, jobId: string, size: PaperSize): Promise<Outcome<File>> {
  const record = await recordToPrint(db, jobId);
  return record.ok ? asPdf(db, installationDocument(record.value, await printing(db)), size) : record;
}

/** Output against input of a run, as a picture file. */
export async function chartFile(db: Knex, runId: string, kind: 'svg' | 'png'): Promise<Outcome<File>> {
  const found = await runToPrint(db, runId);
  if (!found.ok) return found;
  const { record, run } = found.value;
  const chart = ratioChart(run, (await readSettings(db)).body.unitSet);
  if (!chart)
    return refused({
      code: 'refused',
      message: 'Nothing was measured with its supply on, so there is no chart.',
    });
  const svg = plainColours(chart.svg);
  const name = `${record.job.tag} output against input.${kind}`;
  if (kind === 'svg') return done({ name, body: svg });
  const font = {
    fontFiles: FONT_FILES(),
    loadSystemFonts: false,
    defaultFontFamily: 'Atkinson Hyperlegible Next',
  };
  const drawn = new Resvg(svg, { font, background: '#FFFFFF', fitTo: { mode: 'width', value: 1280 } });
  return done({ name, body: drawn.render().asPng() });
}

/** Every reading of a run as CSV, units in the heads of the columns. */
export async function readingsCsv(db: Knex, runId: string): Promise<Outcome<File>> {
  const found = await runToPrint(db, runId);
  if (!found.ok) return found;
  const { record, run } = found.value;
  const table = readingsTable(run, (await readSettings(db)).body.unitSet);
  return done({ name: `${record.job.tag} readings.csv`, body: csvOf(table) });
}
