import { expect, type Page } from '@playwright/test';
import type { RunEvent } from '../src/core/contract/events';
import { FAMILIES } from '../src/core/families/registry';
import type { RemoteVacuumProfile } from '../src/core/families/remote-vacuum/index';
import type { VacuumVehicleProfile } from '../src/core/families/vacuum-vehicle';
import { instrumentsOf, gateRule } from '../src/core/procedure/measured-item';
import { seeded } from '../src/core/numeric/chance';
import { rehearse, type BenchTruth } from '../src/core/procedure/rehearse';
import { nextAction, type Action } from '../src/core/procedure/next-action';
import { reduceRun } from '../src/core/procedure/run';
import type { Quantity } from '../src/core/quantities/units';
import type { Job } from '../src/core/records/job';
import type { LiveMessage, LiveMoment } from '../src/core/shop/live';
import type { Stored, StoredProfile, StoredRun } from '../src/core/records/views';
import type { Hands } from '../src/core/model/motion';
import { answerKeys } from '../src/ui/run/answer-keys';
import type { Site } from './app';

/** A prompt has to have stood this long before a key that answers it counts, ms. */
const SETTLING_MS = 820;

/** Puts a profile with short waits on the shelf, takes in a unit of it and starts its test. */
export const newRun = (app: Site, tag: string, change: Partial<RemoteVacuumProfile> = {}) =>
  runOn(app, tag, 'Tollan RV-230', { settle_s: 1, hold_s: 20, ...change });

/** The mail van of the demo, watched and held for a quarter of the usual time: its waits pass as they do for anybody. */
export const quickVan = ({ unit, load }: VacuumVehicleProfile) => ({
  unit: { ...unit, decay_s: 30, hold_s: 10, standing_s: 60 },
  load: { ...load, sink_s: 15 },
});

/** The same of any profile of the demo, by its name. @param change what differs from it, or how that follows from it */
export async function runOn(
  app: Site,
  tag: string,
  name: string,
  change: object | ((body: never) => object),
  complaint = 'Made for a test',
): Promise<{ job: Stored<Job>; run: StoredRun }> {
  const profiles = await app.get<StoredProfile[]>('/profiles');
  const base = profiles.find(({ body }) => body.name === name)!;
  const profile = await app.post<Stored<unknown>>('/profiles', {
    ...base.body,
    name: `${tag} profile`,
    ...(typeof change === 'function' ? change(base.body as never) : change),
  });
  const job = await app.post<Stored<Job>>('/jobs', {
    tag,
    kind: base.kind,
    profileId: profile.id,
    from: 'Quay tug 9',
    complaint,
    fluid: FAMILIES[base.kind].fluid(base.body) ?? 'dot4',
    promisedOn: null,
  });
  return { job, run: await app.post<StoredRun>(`/jobs/${job.id}/runs`, {}) };
}

/**
 * What a profile of the demo describes with a fault, and what somebody has read of it already: everything before the item
 * named, changed where said.
 */
export async function readSoFar(
  app: Site,
  name: string,
  tag: string,
  [id, severity]: readonly [fault: string, severity: number],
  until: string,
  change: (event: RunEvent) => RunEvent = (event) => event,
) {
  const { run } = await runOn(app, tag, name, {});
  const { context, kind, events: from } = await app.get<StoredRun>(`/runs/${run.id}`);
  const family = FAMILIES[kind];
  const fault = family.faults.find((one) => one.id === id)!;
  const truth: BenchTruth = {
    parameters: fault.apply(family.healthy(context.profile).values, severity),
    supply_Pa: 0,
    gauges: {},
    signs: fault.signs,
    noise_steps: 0.2,
  };
  // Events have names of their own on the server that all share: the number in a tag is used once.
  const options = {
    random: seeded(Number(tag.replace(/\D/g, '')) + 700),
    startAt: '2026-01-01T08:00:00.000Z',
    from,
    until,
  };
  const events = rehearse(family, context, truth, options).map(change);
  const whole = [...from, ...events];
  for (let sent = from.length; sent < whole.length; sent += 80) {
    const taken = await app.post<RunEvent[]>(`/runs/${run.id}/events`, {
      expectedVersion: sent,
      events: whole.slice(sent, sent + 80),
    });
    expect(taken).toHaveLength(Math.min(whole.length, sent + 80));
  }
  return { run: run.id, truth };
}

/** Opens the run with the advice beside the tape, by one key. */
export async function advised(app: Site, page: Page, run: string) {
  await page.goto(`${app.url}/runs/${run}`);
  const pane = page.getByRole('region', { name: 'What it may be' });
  await expect(async () => {
    if (!(await pane.isVisible())) await page.keyboard.press('#');
    await expect(pane).toBeVisible({ timeout: 1000 });
  }).toPass();
  await expect(pane.getByRole('list', { name: 'Causes' })).toBeVisible();
  return pane;
}

/**
 * Opens a run with the simulated bench reading and the run's own unit standing on it.
 *
 * @returns what hands do at that bench
 */
export async function onSimulatedBench(app: Site, page: Page, runId: string) {
  await page.goto(`${app.url}/runs/${runId}`);
  await expect(page.getByText('Simulated bench reads')).toBeVisible();
  await page.getByRole('button', { name: 'Simulate what this run tests' }).click();
  await expect(page.getByText(/is simulated now/)).toBeVisible();
  return async (change: Hands): Promise<void> =>
    expect(await app.post('/live/hands', { hands: change })).toMatchObject({ ok: true });
}

/**
 * What a run tests, simulated with a hidden fault of which nothing of the run knows, worked hands-free.
 *
 * @returns who works on it, and what is done with the hands
 */
export async function handsFree(app: Site, page: Page, runId: string, fault: readonly [string, number]) {
  const hands = await onSimulatedBench(app, page, runId);
  expect(await app.post('/live/hands', { unit: { run: runId, fault } })).toMatchObject({ ok: true });
  const bench = await Technician.at(app, page, runId);
  await page.keyboard.press('F3');
  await expect(page.getByRole('button', { name: /Hands-free is on/ })).toBeVisible();
  return { bench, hands };
}

/**
 * Looks at the live gauges until something is so.
 *
 * @param does what the hands do once the gauges are watched: what a gauge shows for a moment only is missed by somebody who
 * looks up afterwards
 * @returns the moment at which it was
 */
export async function seen(
  app: Site,
  when: (moment: LiveMoment) => boolean,
  does?: () => Promise<void>,
): Promise<LiveMoment> {
  const ends = new AbortController();
  const stream = await fetch(`${app.url}/api/v1/live`, { signal: ends.signal });
  let done: Promise<void> | undefined;
  try {
    let rest = '';
    for await (const piece of stream.body!.pipeThrough(new TextDecoderStream())) {
      const lines = (rest + piece).split('\n');
      rest = lines.pop()!;
      for (const line of lines) {
        if (!line.startsWith('data: ')) continue;
        const message = JSON.parse(line.slice(6)) as LiveMessage;
        if (message.type !== 'moment') continue;
        done ??= does?.();
        if (!when(message.moment)) continue;
        await done;
        return message.moment;
      }
    }
    throw new Error('The line to the logger broke.');
  } finally {
    ends.abort();
  }
}

/** Where the gauges of accumulators jump to as what is done lets fluid enter: read as they are through with the jump. */
export async function jumpedTo(
  app: Site,
  gauges: readonly string[],
  does: () => Promise<void>,
): Promise<LiveMoment> {
  let before: LiveMoment | null = null;
  const isOver = (moment: LiveMoment) => {
    const over = gauges.every(
      (gauge) =>
        before && before.shown[gauge]! > JUMPED_PA && moment.shown[gauge]! < before.shown[gauge]! * 1.02,
    );
    before = moment;
    return over;
  };
  return seen(app, isOver, does);
}
const JUMPED_PA = 10e5;

/** The most that a live gauge shows from the moment at which something is done until some seconds after it. */
export async function greatest(
  app: Site,
  gauge: string,
  within_s: number,
  does: () => Promise<void>,
): Promise<number> {
  let most = -Infinity;
  let [isDone, from_s] = [false, Infinity];
  await seen(
    app,
    ({ shown, t_s }) => {
      most = Math.max(most, shown[gauge]!);
      if (isDone) from_s = Math.min(from_s, t_s);
      return t_s - from_s > within_s;
    },
    async () => {
      await does();
      isDone = true;
    },
  );
  return most;
}

/** On a job's sheet, by keyboard: a part was replaced by a new one. */
export async function replacePart(page: Page, part: string, why: string): Promise<void> {
  const { keyboard } = page;
  await expect(async () => {
    await keyboard.press('w');
    await expect(page.getByRole('dialog')).toBeVisible({ timeout: 1000 });
  }).toPass();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('combobox', { name: /Part or line/ }).focus();
  await keyboard.press('ArrowDown');
  await expect(page.getByRole('listbox')).toBeVisible();
  await keyboard.type(part);
  await keyboard.press('Enter');
  await dialog.getByRole('textbox', { name: 'Why' }).focus();
  await keyboard.type(why);
  await dialog.getByRole('button', { name: 'Write it down' }).focus();
  await keyboard.press('Enter');
  await expect(dialog).toBeHidden();
}

/** A technician at the keyboard, reading gauges that the twin moves. */
export class Technician {
  private constructor(
    private readonly app: Site,
    private readonly page: Page,
    private readonly runId: string,
    private readonly shown: ReadonlyMap<string, number>,
    private readonly truth: BenchTruth,
  ) {}

  static async at(
    app: Site,
    page: Page,
    runId: string,
    change: Partial<BenchTruth> = {},
  ): Promise<Technician> {
    const { context, kind, events: from } = await app.get<StoredRun>(`/runs/${runId}`);
    const family = FAMILIES[kind];
    const truth: BenchTruth = {
      parameters: family.healthy(context.profile).values,
      supply_Pa: 20 * 3386.389,
      gauges: {},
      signs: {},
      noise_steps: 0,
      ...change,
    };
    const options = { random: seeded(5), startAt: '2026-01-01T08:00:00.000Z' };
    const events = [
      ...rehearse(family, context, truth, options),
      ...rehearse(family, context, truth, { ...options, from }),
    ];
    const shown = new Map(
      events.flatMap((event) => (event.type === 'captured' ? [[event.item, event.value_SI] as const] : [])),
    );
    return new Technician(app, page, runId, shown, truth);
  }

  /** What the server says comes next. */
  async next(): Promise<{ action: Action; count: number }> {
    const { context, events } = await this.app.get<StoredRun>(`/runs/${this.runId}`);
    const state = reduceRun(context.procedure, events, gateRule(instrumentsOf(context.rig, context.shelf)));
    return { action: nextAction(context.procedure, state), count: events.length };
  }

  /** Types what the gauge of an item shows, in the bench's usual units. */
  reading(itemId: string, quantity: Quantity): string {
    const value = this.shown.get(itemId)!;
    if (quantity === 'depression') return `${(value / 3386.389).toFixed(1)} inHg`;
    if (quantity === 'travel') return `${(value * 1e3).toFixed(2)} mm`;
    if (quantity === 'temperature') return `${(value - 273.15).toFixed(1)} °C`;
    return quantity === 'pressure'
      ? (value / 1e5).toFixed(2)
      : value.toFixed(quantity === 'duration' ? 2 : 1);
  }

  /** The same in as few keys as it takes: what the gauge resolves, without the unit that the bench uses anyway. */
  short(itemId: string, quantity: Quantity): string {
    const value = this.shown.get(itemId)!;
    return String(Number((value / (quantity === 'depression' ? 3386.389 : 1e5)).toFixed(1)));
  }

  /**
   * Does one thing by keyboard and waits until the server has it.
   *
   * @param handsFree the run moves on by itself: what is next on the screen is not waited for
   * @returns the step it belonged to
   */
  async doNext(handsFree = false): Promise<string> {
    const { action, count } = await this.next();
    if (action.kind === 'done') return 'done';
    const step = action.kind === 'finish' ? 'finish' : action.step.id;
    if (action.kind === 'item' && action.item.kind === 'reading') {
      await this.enter(action.item, this.reading(action.item.id, action.item.quantity));
    } else if (action.kind === 'item' && action.item.kind === 'observation') {
      const { answers, prompt } = action.item;
      const given = answers.findIndex(({ id }) => id === (this.truth.signs[action.item.id] ?? 'good'));
      await expect(this.page.getByText(prompt)).toBeVisible();
      await this.press(answerKeys(answers.map(({ label }) => label))[given]!, count);
    } else if (action.kind === 'item' && action.item.kind === 'wait') {
      // A short wait that starts by itself may be over before a slow machine has shown it.
      await expect
        .poll(
          async () => (await this.page.getByRole('timer').isVisible()) || (await this.next()).count > count,
        )
        .toBe(true);
      if (
        action.item.starts === 'key' &&
        (await this.page.getByRole('button', { name: /^Start/ }).count()) > 0
      ) {
        await this.press('s', count);
      }
      await expect(this.page.getByRole('timer')).toBeHidden({
        timeout: (action.item.duration_s + 15) * 1000,
      });
    } else {
      await expect(
        this.page.getByRole('button', {
          name: /^(Understood|Vacuum is|Pump is|Power is|Ignition is|Engine (?:is|idles)|It is|Close the run)/,
        }),
      ).toBeEnabled();
      const letter = { acknowledge: 'u', source: 'v', finish: 'c', item: '', stopped: 'e' }[action.kind];
      await this.press(letter, count);
    }
    await expect.poll(async () => (await this.next()).count, { intervals: [30] }).toBeGreaterThan(count);
    if (!handsFree) await this.settled();
    return step;
  }

  /** Types a reading once the screen asks for it: the server has the one before it sooner than the screen. */
  async enter({ prompt }: { readonly prompt: string }, text: string): Promise<void> {
    const { keyboard } = this.page;
    await expect(this.page.locator('#prompt')).toContainText(prompt);
    await expect(this.page.locator('#reading')).toBeFocused();
    await keyboard.press('Control+A');
    await keyboard.type(text);
    await keyboard.press('Enter');
  }

  /**
   * Presses a key until the server has heard of it: a page just loaded is drawn before its keys work, and a key that
   * comes as the prompt changes is ignored.
   */
  private async press(key: string, count: number): Promise<void> {
    await this.page.waitForTimeout(SETTLING_MS);
    await expect(async () => {
      if ((await this.next()).count === count) await this.page.keyboard.press(key);
      await expect
        .poll(async () => (await this.next()).count, { timeout: 1500, intervals: [30] })
        .toBeGreaterThan(count);
    }).toPass();
  }

  /** Waits until the screen shows what the server has, which may still change: another test is brought by the advice. */
  async settled(): Promise<void> {
    await expect(async () => {
      const { action } = await this.next();
      const { page } = this;
      if (action.kind === 'done' || action.kind === 'finish') return;
      const shown =
        action.kind === 'item'
          ? page.getByText(action.item.prompt).first()
          : page.getByRole('heading', { name: action.step.title });
      await expect(shown).toBeVisible({ timeout: 1000 });
    }).toPass();
  }

  /**
   * Works until an item is next, or the run is done.
   *
   * @param left steps that are skipped whole, with this reason
   */
  async until(
    itemId: string | null,
    { left, why }: { left: readonly string[]; why: string } = { left: [], why: '' },
  ): Promise<void> {
    for (;;) {
      const { action } = await this.next();
      if (action.kind === 'done' || (action.kind === 'item' && action.item.id === itemId)) return;
      if (!('step' in action) || !left.includes(action.step.id)) await this.doNext();
      else await this.skipStep(why);
    }
  }

  /** Skips the step that is next, whole. */
  async skipStep(why: string): Promise<void> {
    const { count } = await this.next();
    await this.page.keyboard.press('F4');
    const dialog = this.page.getByRole('dialog', { name: /^Skip/ });
    await dialog.getByLabel('Reason').focus();
    await this.page.keyboard.type(why);
    await dialog.getByRole('button', { name: 'Skip the whole step' }).focus();
    await this.page.keyboard.press('Enter');
    await expect.poll(async () => (await this.next()).count, { intervals: [30] }).toBeGreaterThan(count);
    await expect(dialog).toBeHidden();
    await this.settled();
  }
}
