import { comparisonSchema } from '@/core/shop/comparison';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import { calibrationSchema } from '@/core/metrology/calibration';
import { instrumentSchema } from '@/core/metrology/instrument';
import { jobSchema } from '@/core/records/job';
import { JOB_FILE_VERSION, jobFileSchema } from '@/core/records/job-file';
import { jobQuerySchema } from '@/core/records/job-query';
import { traceQuerySchema } from '@/core/records/trace-query';
import { settingsSchema } from '@/core/shop/settings';
import { identifierMapSchema } from '@/core/shop/identifier-map';
import { handsSchema, simUnitSchema } from '@/core/shop/live';
import { traceNoteSchema, traceChangeSchema } from '@/core/records/trace-record';
import { layoutSchema } from '@/core/signals/csv/layout';
import { diagnosisSchema } from '@/core/workings/open-diagnosis';
import { installationSchema, steadySchema } from '@/core/workings/open-models';
import { WORKINGS } from '@/core/workings/registry';
import { recordSchema } from './live-recording';
import { noteSchema } from './notes';
import { changedDaySchema } from './day';
import { practiceSchema } from './practice';
import { endCaseSchema, lookSchema, newCaseSchema } from './practice-cases';
import { profileFileSchema } from './profile-files';
import { appendSchema } from './runs';
import { importQuerySchema } from './trace-import';
import {
  changedBySchema,
  changedPinSchema,
  correctSchema,
  newTechnicianSchema,
  signSchema,
} from './technicians';
import { controlSchema } from './vehicle';
import { codesSchema } from './vehicle-codes';
import { changedWeightSchema } from './weights';

type Method = 'get' | 'post' | 'put' | 'delete';

/** One thing that can be asked of the application. */
interface Operation {
  readonly method: Method;
  readonly path: string;
  readonly summary: string;
  readonly body?: z.ZodType;
  readonly query?: z.ZodObject;
  /** Media type of what is sent, where it is not JSON. */
  readonly sends?: string;
  /** Media type of what comes back, where it is not JSON. */
  readonly returns?: string;
}

const change = (body: z.ZodType) => z.strictObject({ version: z.int(), body });
const anyProfile = z.union(Object.values(FAMILIES).map(({ profile }) => profile));
const paper = z.object({ paper: z.enum(['a4', 'letter']).optional() });
/** Who tests, where it is not whom the settings name. */
const by = z.object({ technician: z.uuid().optional() });
const photo = z.object({ id: z.uuid(), point: z.string().optional(), caption: z.string().optional() });

/** Everything under /api/v1, in the order of the work. A test holds it against the routes that there are. */
export const OPERATIONS: readonly Operation[] = [
  { method: 'get', path: '/health', summary: 'Whether the application answers' },
  { method: 'get', path: '/jobs', summary: 'Search and list jobs, a page at a time', query: jobQuerySchema },
  { method: 'post', path: '/jobs', summary: 'Take in a unit', body: jobSchema },
  { method: 'get', path: '/jobs/{id}', summary: 'One job as lists show it' },
  { method: 'put', path: '/jobs/{id}', summary: 'Change what was taken in', body: change(jobSchema) },
  { method: 'get', path: '/jobs/{id}/record', summary: 'The whole record of a job' },
  {
    method: 'post',
    path: '/jobs/{id}/entries',
    summary: 'Write down a finding, work, a fitting; take back, archive, delete, open again',
    body: noteSchema,
  },
  {
    method: 'post',
    path: '/jobs/{id}/codes',
    summary: 'Read a vehicle’s trouble codes into a job, and clear those that are saved',
    body: codesSchema,
  },
  { method: 'post', path: '/jobs/{id}/photos', summary: 'Add a photo', sends: 'image/*', query: photo },
  { method: 'post', path: '/jobs/{id}/signatures', summary: 'Sign a job', body: signSchema },
  {
    method: 'post',
    path: '/jobs/{id}/corrections',
    summary: 'Add a correction to a signed job',
    body: correctSchema,
  },
  { method: 'post', path: '/jobs/{id}/runs', summary: 'Start a bench test', query: by },
  {
    method: 'post',
    path: '/jobs/{id}/retests',
    summary: 'Start a re-test of what has become stale',
    query: by,
  },
  { method: 'get', path: '/jobs/{id}/file', summary: 'The job as a file for another shop' },
  {
    method: 'get',
    path: '/jobs/{id}/installation.pdf',
    summary: 'The installation sheet',
    returns: 'application/pdf',
    query: paper,
  },
  {
    method: 'post',
    path: '/job-files',
    summary: 'Take in a job file: whole, or not at all',
    body: jobFileSchema,
  },
  { method: 'post', path: '/pictures', summary: 'Take in a picture: the logo of the shop', sends: 'image/*' },
  { method: 'get', path: '/photos/{id}', summary: 'A photo by its SHA-256', returns: 'image/jpeg' },
  {
    method: 'get',
    path: '/runs/{id}',
    summary: 'A run: what it was started under and everything that happened',
  },
  {
    method: 'post',
    path: '/runs/{id}/events',
    summary: 'Add a capture or another event to a run',
    body: appendSchema,
  },
  {
    method: 'post',
    path: '/runs/{id}/settling',
    summary: 'Go on from a finished run to settle which of two gauges is wrong',
  },
  { method: 'get', path: '/runs/{id}/logged', summary: 'What the traces of a run were made to yield' },
  {
    method: 'get',
    path: '/runs/{id}/report.pdf',
    summary: 'The report',
    returns: 'application/pdf',
    query: paper,
  },
  {
    method: 'get',
    path: '/runs/{id}/care.ics',
    summary: 'What is to be done to the unit, as a calendar',
    returns: 'text/calendar',
  },
  { method: 'get', path: '/runs/{id}/chart.svg', summary: 'Output against input', returns: 'image/svg+xml' },
  { method: 'get', path: '/runs/{id}/chart.png', summary: 'Output against input', returns: 'image/png' },
  { method: 'get', path: '/runs/{id}/readings.csv', summary: 'Every reading', returns: 'text/csv' },
  { method: 'get', path: '/waits', summary: 'Waits that are counting' },
  { method: 'get', path: '/profiles', summary: 'Profiles on the shelf' },
  { method: 'post', path: '/profiles', summary: 'Add a profile', body: anyProfile },
  { method: 'put', path: '/profiles/{id}', summary: 'Change a profile', body: change(anyProfile) },
  { method: 'delete', path: '/profiles/{id}', summary: 'Take a profile off the shelf' },
  { method: 'post', path: '/profiles/{id}/restore', summary: 'Put a profile back' },
  { method: 'get', path: '/profiles/{id}/file', summary: 'A profile as a file' },
  {
    method: 'post',
    path: '/profile-files',
    summary: 'Take a profile file onto the shelf',
    body: profileFileSchema,
  },
  { method: 'get', path: '/comparisons', summary: 'Candidates for another assist, by vehicle' },
  { method: 'post', path: '/comparisons', summary: 'Begin a comparison', body: comparisonSchema },
  {
    method: 'put',
    path: '/comparisons/{id}',
    summary: 'Change a comparison',
    body: change(comparisonSchema),
  },
  { method: 'delete', path: '/comparisons/{id}', summary: 'Take a comparison off the shelf' },
  { method: 'post', path: '/comparisons/{id}/restore', summary: 'Put a comparison back' },
  { method: 'get', path: '/instruments', summary: 'Instruments on the shelf' },
  { method: 'post', path: '/instruments', summary: 'Add an instrument', body: instrumentSchema },
  {
    method: 'put',
    path: '/instruments/{id}',
    summary: 'Change an instrument',
    body: change(instrumentSchema),
  },
  { method: 'delete', path: '/instruments/{id}', summary: 'Take an instrument off the shelf' },
  { method: 'post', path: '/instruments/{id}/restore', summary: 'Put an instrument back' },
  {
    method: 'post',
    path: '/instruments/{id}/calibrations',
    summary: 'Record a calibration',
    body: change(calibrationSchema),
  },
  {
    method: 'get',
    path: '/due.ics',
    summary: 'Calibrations, and accumulators to be read again, as a calendar',
    returns: 'text/calendar',
  },
  { method: 'get', path: '/technicians', summary: 'Those who may sign' },
  { method: 'post', path: '/technicians', summary: 'Add a technician', body: newTechnicianSchema },
  {
    method: 'delete',
    path: '/technicians/{id}',
    summary: 'Take a technician off the list',
    body: changedBySchema,
  },
  { method: 'put', path: '/technicians/{id}/pin', summary: 'Change a PIN', body: changedPinSchema },
  {
    method: 'post',
    path: '/technicians/{id}/restore',
    summary: 'Put a technician back',
    body: changedBySchema,
  },
  { method: 'get', path: '/removed', summary: 'What was taken off the shelf, and can be put back' },
  {
    method: 'get',
    path: '/vehicle',
    summary: 'What the vehicle’s interface tells, as it comes',
    query: z.object({ run: z.uuid().optional(), reads: z.string().optional() }),
    returns: 'text/event-stream',
  },
  {
    method: 'post',
    path: '/vehicle/control',
    summary: 'Have the vehicle do something in an open test, or give it back',
    body: controlSchema,
  },
  {
    method: 'get',
    path: '/vehicle/log.csv',
    summary: 'What was heard from the vehicle for a test',
    query: z.object({ run: z.uuid() }),
    returns: 'text/csv',
  },
  { method: 'post', path: '/vehicle/seen', summary: 'Say that it was read what became of a control' },
  { method: 'get', path: '/vehicle/map', summary: 'The map of a vehicle’s identifiers' },
  {
    method: 'put',
    path: '/vehicle/map',
    summary: 'Put another map of identifiers in its place',
    body: change(identifierMapSchema),
  },
  {
    method: 'get',
    path: '/live',
    summary: 'What the bench logger shows, as it comes: server-sent events',
    returns: 'text/event-stream',
  },
  {
    method: 'post',
    path: '/live/hands',
    summary: 'Work the simulated bench: handle, pump, valve, or what stands on it',
    body: z.union([z.strictObject({ hands: handsSchema }), z.strictObject({ unit: simUnitSchema })]),
  },
  {
    method: 'post',
    path: '/runs/{id}/live',
    summary: 'Say which step is being done: what the logger sends is its trace',
    body: recordSchema,
  },
  {
    method: 'get',
    path: '/traces',
    summary: 'Search and list traces, a page at a time',
    query: traceQuerySchema,
  },
  {
    method: 'post',
    path: '/traces/import',
    summary: 'Read a log and keep it as a trace',
    sends: 'text/csv',
    query: importQuerySchema,
  },
  {
    method: 'post',
    path: '/traces/analyse',
    summary: 'Every estimator’s result of a log; nothing is kept',
    sends: 'text/csv',
    query: importQuerySchema.partial(),
  },
  {
    method: 'post',
    path: '/traces/layout',
    summary: 'The layout confirmed last time for a log with these columns',
    body: layoutSchema,
  },
  { method: 'get', path: '/traces/{id}', summary: 'A trace: what is said of it' },
  {
    method: 'put',
    path: '/traces/{id}',
    summary: 'Name a trace, pin notes',
    body: change(traceChangeSchema),
  },
  {
    method: 'post',
    path: '/traces/{id}/ranges',
    summary: 'Work a marked range out by itself and keep what it yields',
    body: change(traceNoteSchema),
  },
  { method: 'delete', path: '/traces/{id}', summary: 'Take a trace away' },
  { method: 'post', path: '/traces/{id}/restore', summary: 'Put a trace back' },
  { method: 'get', path: '/traces/{id}/analysis', summary: 'Everything worked out of a trace' },
  {
    method: 'get',
    path: '/traces/{id}/overview',
    summary: 'Least and greatest of every channel over the whole trace',
    returns: 'application/octet-stream',
  },
  {
    method: 'get',
    path: '/traces/{id}/window',
    summary: 'Least and greatest of every channel over a part of a trace',
    returns: 'application/octet-stream',
    query: z.object({ from: z.number(), to: z.number(), buckets: z.int().optional() }),
  },
  {
    method: 'get',
    path: '/traces/{id}/readings.csv',
    summary: 'Every reading of a trace, SI',
    returns: 'text/csv',
  },
  {
    method: 'post',
    path: '/practice',
    summary: 'A practice unit of a kind on the simulated bench: its run, begun or gone on with',
    body: practiceSchema,
  },
  {
    method: 'get',
    path: '/day',
    summary: 'The day planned: every job with its times, ranges and what is late',
  },
  {
    method: 'put',
    path: '/day',
    summary: 'Who is here today and what is fixed by hand; answers with the day planned anew',
    body: changedDaySchema,
  },
  { method: 'get', path: '/day.ics', summary: 'The day for a calendar', returns: 'text/calendar' },
  {
    method: 'get',
    path: '/practice/cases',
    summary: 'Practice cases; what is hidden in one once it is over',
  },
  {
    method: 'post',
    path: '/practice/cases',
    summary: 'Draw a practice case, by kind and level or from a file, and put it on the simulated bench',
    body: newCaseSchema,
  },
  { method: 'get', path: '/practice/cases/{id}', summary: 'One practice case' },
  {
    method: 'post',
    path: '/practice/cases/{id}/bench',
    summary: 'Put the unit of a practice case on the simulated bench, as far as it was mended',
  },
  {
    method: 'post',
    path: '/practice/cases/{id}/look',
    summary: 'What is seen at an observation that the test of a case asks for now',
    body: lookSchema,
  },
  {
    method: 'post',
    path: '/practice/cases/{id}/pass',
    summary: 'Let the time of a wait pass at once, or a part of it',
  },
  {
    method: 'post',
    path: '/practice/cases/{id}/end',
    summary: 'End a practice case by what was found: what was hidden is told',
    body: endCaseSchema,
  },
  {
    method: 'get',
    path: '/practice/cases/{id}/file',
    summary: 'A practice case that is over as a file: what it is drawn from, no truth',
  },
  { method: 'get', path: '/settings', summary: 'Settings of the bench' },
  { method: 'put', path: '/settings', summary: 'Change the settings', body: change(settingsSchema) },
  {
    method: 'get',
    path: '/verify/seal',
    summary:
      'The signature whose seal stands on a printed report, and whether its record is as it was written',
    query: z.object({ seal: z.string().meta({ description: 'The digits that are printed, 16 at least.' }) }),
  },
  { method: 'post', path: '/verify', summary: 'Read the whole database and name whatever was altered' },
  {
    method: 'get',
    path: '/backup',
    summary: 'A consistent copy of everything',
    returns: 'application/vnd.sqlite3',
  },
  {
    method: 'get',
    path: '/models',
    summary: 'Models with their parameters, inputs, readings and faults, and what can be joined',
  },
  {
    method: 'post',
    path: '/models/{kind}/steady',
    summary: 'Every steady reading of a model, healthy or with faults. SI',
    body: steadySchema,
  },
  {
    method: 'post',
    path: '/models/installation/steady',
    summary:
      'Every steady reading of a source, a unit and a load joined at their nodes, some of them cut. SI',
    body: installationSchema,
  },
  {
    method: 'get',
    path: '/models/{kind}/weights',
    summary:
      'How often the faults of a kind count, where that was changed, and every change with who and why',
  },
  {
    method: 'post',
    path: '/models/{kind}/weights',
    summary: 'Change how often a fault counts: an empty weight gives it back its own',
    body: changedWeightSchema,
  },
  {
    method: 'post',
    path: '/diagnosis',
    summary: 'What it probably is, by all that was seen, and which test tells the most for its minutes. SI',
    body: diagnosisSchema,
  },
  { method: 'get', path: '/workings', summary: 'Named calculations of the core' },
  ...WORKINGS.map((working): Operation => ({
    method: 'post',
    path: `/workings/${working.name}`,
    summary: working.about,
    body: working.input,
  })),
  { method: 'get', path: '/openapi.json', summary: 'This document' },
  { method: 'get', path: '/schemas/job-file.json', summary: 'JSON Schema of the job file' },
];

const jsonSchema = (schema: z.ZodType) => z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });

/** JSON Schema of the job file, from the schema that reads it. */
export const jobFileJsonSchema = () => ({
  $id: `hard-pedal-job-file-${JOB_FILE_VERSION}`,
  title: `Hard Pedal job file, version ${JOB_FILE_VERSION}`,
  ...jsonSchema(jobFileSchema),
});

const PROBLEM = {
  type: 'object',
  properties: {
    type: { type: 'string' },
    title: { type: 'string', description: 'A sentence for the technician' },
    status: { type: 'integer' },
    code: { type: 'string' },
    fields: { type: 'object', additionalProperties: { type: 'string' } },
  },
  required: ['title', 'status'],
};

/** The OpenAPI document of everything under /api/v1, made from the schemas themselves. */
export function openApi() {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const { method, path, summary, body, query, sends, returns } of OPERATIONS) {
    const named = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name!);
    const asked = Object.keys(query?.shape ?? {});
    const content = body
      ? { 'application/json': { schema: jsonSchema(body) } }
      : sends && { [sends]: { schema: { type: 'string', format: 'binary' } } };
    (paths[path] ??= {})[method] = {
      summary,
      parameters: [
        ...named.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
        ...asked.map((name) => ({ name, in: 'query', required: false, schema: { type: 'string' } })),
      ],
      ...(content ? { requestBody: { required: true, content } } : {}),
      responses: {
        '2XX': { description: 'Done', content: { [returns ?? 'application/json']: {} } },
        '4XX': {
          description: 'Refused, with a sentence',
          content: { 'application/problem+json': { schema: PROBLEM } },
        },
      },
    };
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Hard Pedal',
      version: '1',
      description: 'All numbers are SI. The application answers on the loopback address only.',
    },
    servers: [{ url: '/api/v1' }],
    paths,
  };
}
