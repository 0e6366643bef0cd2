/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { sentence } from '@/core/quantities/sentence';
import { calendarOf, careCalendarOf } from './calendar';
import { csvOf } from './csv';
import { jobFileJsonSchema, openApi, OPERATIONS } from './openapi';
import { askInstallation, askModel, callWorking, workingsList } from './workings';

const ROOT = path.join(__dirname, '../app/api/v1');

/** Every method of every route file, as the document names it. */
function routes(): string[] {
  return readdirSync(ROOT, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('route.ts'))
    .flatMap((file) => {
      const where = `/${path.dirname(file)}`.replace(/\[(\w+)\]/g, '{$1}');
      const text = readFileSync(path.join(ROOT, file), 'utf8');
      return [...text.matchAll(/export const (GET|POST|PUT|DELETE)\b/g)].map(
        ([, method]) => `${method} ${where}`,
      );
    })
    .sort();
}

interface Refused {
  readonly fields: Readonly<Record<string, string>>;
  readonly message: string;
}

describe('the published interface', () => {
  test('names every route that there is, and none that there is not', () => {
    const named = OPERATIONS.map(({ method, path: where }) => `${method.toUpperCase()} ${where}`).map((one) =>
      one.replace(/\/workings\/[\w-]+$/, '/workings/{name}'),
    );
    expect([...new Set(named)].sort()).toEqual(routes());
  });
  test('gives a schema for every body, and problem details for every refusal', () => {
    const { paths } = openApi();
    const run = JSON.stringify(paths['/runs/{id}/events']);
    expect(run).toContain('confirmedUnlikely');
    expect(run).toContain('application/problem+json');
    expect(Object.keys(paths)).toHaveLength(new Set(OPERATIONS.map((one) => one.path)).size);
  });
  test('the schema of the job file is published as the application reads it', () => {
    const published = JSON.parse(
      readFileSync(path.join(__dirname, '../../docs/job-file.schema.json'), 'utf8'),
    ) as unknown;
    expect(published).toEqual(JSON.parse(JSON.stringify(jobFileJsonSchema())));
  });
  test('a working is called by name; what cannot be is refused by field', () => {
    const reserve = callWorking('altitude', { altitude_m: 0, supply_Pa: 60_000, kind: 'pump' });
    expect(reserve.ok && reserve.value.answers[0]).toMatchObject({ id: 'barometer_Pa', value: 101_325 });
    expect(callWorking('altitude', { altitude_m: 'x' })).toMatchObject({
      ok: false,
      why: { code: 'invalid' },
    });
    expect(callWorking('horoscope', {})).toMatchObject({ ok: false, why: { code: 'not-found' } });
    const { fields, message } = (callWorking('altitude', { altitude_m: 'x' }) as { why: Refused }).why;
    expect(Object.keys(fields)).toContain('altitude_m');
    expect(Object.values(fields)).toContain(message);
    expect(workingsList().find(({ name }) => name === 'altitude')).toMatchObject({
      title: expect.any(String) as string,
      source: expect.any(String) as string,
    });
  });
  test('a model is asked by its kind; one that there is not, and what makes no sense, are refused', () => {
    expect(askModel('steam', {})).toMatchObject({ ok: false, why: { code: 'not-found' } });
    expect(askModel('remote-vacuum', { inputs: 'none' })).toMatchObject({
      ok: false,
      why: { code: 'invalid' },
    });
    expect(askInstallation({})).toMatchObject({ ok: false, why: { code: 'invalid' } });
  });
});

describe('files for other programs', () => {
  test('cells that a spreadsheet would run are text; negative numbers stay numbers', () => {
    const rows = [['=1+1', '@SUM(A1)', '+cmd', '-2.5', -2.5, '-3,25', '\ttab', 'plain', '-a']];
    expect(csvOf(rows)).toBe(`\uFEFF"'=1+1","'@SUM(A1)","'+cmd",-2.5,-2.5,"-3,25","'\ttab",plain,"'-a"\r\n`);
  });
  test('due dates are whole days of a calendar; none is an empty calendar', () => {
    const calibrations = [{ tag: 'V-41', name: 'Vacuum, activation', on: '2026-12-24' }];
    const accumulators = [
      {
        jobId: 'a1',
        tag: 'GF-0431',
        accumulator: 'accumulator',
        name: 'Shuttle taxi 5, Accumulator',
        on: '2027-03-09',
        says: sentence('4 readings: at {limit} about 2027-05-01.', {
          limit: { value: 58.5e5, quantity: 'pressure' },
        }),
      },
    ];
    const text = calendarOf({ calibrations, accumulators }, 'metric');
    expect(text).toMatch(/BEGIN:VEVENT[\s\S]*DTSTART;VALUE=DATE:20261224[\s\S]*END:VEVENT/);
    expect(text).toMatch(/SUMMARY:Calibration due: V-41/);
    expect(text).toMatch(/BEGIN:VEVENT[\s\S]*DTSTART;VALUE=DATE:20270309[\s\S]*END:VEVENT/);
    expect(text).toMatch(/SUMMARY:Read the pre-charge again: GF-0431/);
    expect(text.replaceAll('\r\n\t', '')).toContain('at 58.5 bar about 2027-05-01');
    const none = calendarOf({ calibrations: [], accumulators: [] }, 'metric');
    expect(none).toMatch(/BEGIN:VCALENDAR[\s\S]*END:VCALENDAR/);
  });
  test('the care of a unit as whole days of a calendar, each once', () => {
    const due = [{ id: 'fluid', what: 'Renew the fluid', why: 'It takes up water.', on: '2027-11-30' }];
    const text = careCalendarOf('GF-0431', 'Shuttle taxi 5', due).replaceAll('\r\n\t', '');
    expect(text).toMatch(/DTSTART;VALUE=DATE:20271130/);
    expect(text).toContain('SUMMARY:GF-0431\\, Shuttle taxi 5: Renew the fluid');
    expect(text).toContain('UID:care-GF-0431-fluid-2027-11-30@hard-pedal');
    expect(text).toMatch(/DURATION:P1D/);
  });
});
