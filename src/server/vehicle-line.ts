import type { Heard } from '@/core/contract/vehicle-interface';
import { notAnAddress, parseAddress } from '@/core/shop/address';
import { identifierWith, valuesOf, type Identifier, type IdentifierMap } from '@/core/shop/identifier-map';
import {
  CONTROL_S,
  HEARD_EVERY_MS,
  MOST_HEARD,
  NO_VEHICLE,
  type ControlSaid,
  type VehicleControl,
  type VehicleMessage,
  type VehicleStatus,
} from '@/core/shop/vehicle-live';
import { VehicleLink, type Replied, type Times } from '@/devices/vehicle/client';

/** A line that failed is tried again after so long, ms. */
const AGAIN_MS = 1000;

/** Where it is written down that something is under control, so that an application that is ended does not forget it. */
export interface ControlKept {
  readonly left: () => VehicleControl | null;
  readonly keep: (control: VehicleControl) => void;
  readonly forget: () => void;
}

/** A screen that looks on for no test: nothing is kept for it, and nothing controlled. */
const NO_RUN = '';

/** A screen that looks on, and the values that it shows. */
interface Watcher {
  readonly run: string;
  readonly reads: readonly string[];
  readonly tell: (message: VehicleMessage) => void;
}

const sleep = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const numberOf = ({ number }: Pick<Identifier, 'number'>) => parseInt(number, 16);

/**
 * The one line to a vehicle's interface: open while a screen looks on. One thing at a time may be under its control, for a run that
 * somebody looks at; it is given back when asked, when the last screen of the run is gone, by the link after 30 s, and by the unit
 * itself where neither can.
 */
export class VehicleLine {
  status: VehicleStatus;
  private link: VehicleLink | null = null;
  private readonly watchers = new Set<Watcher>();
  private running: Promise<void> | null = null;
  private log: { readonly run: string; readonly heard: Heard[]; readonly began_ms: number } | null = null;
  private stopped = false;
  private taking = false;

  constructor(
    readonly address: string,
    readonly map: IdentifierMap,
    private readonly kept: ControlKept,
    private readonly times: Partial<Times> = {},
  ) {
    this.status = { ...NO_VEHICLE, state: 'connecting', map: map.name, left: kept.left() };
  }

  /** All that was heard for a run. */
  heardFor(run: string): readonly Heard[] {
    return this.log?.run === run ? this.log.heard : [];
  }

  /** Looks on for a run. @returns what ends it */
  watch(watcher: Watcher): () => void {
    this.watchers.add(watcher);
    watcher.tell({ type: 'status', status: this.status });
    if (this.log?.run === watcher.run) watcher.tell({ type: 'log', log: this.log.heard });
    this.begin();
    return () => {
      this.watchers.delete(watcher);
      const { control } = this.status;
      if (control && !this.isLookedAt(control.run)) void this.giveBack(LEFT);
    };
  }

  private isLookedAt(run: string): boolean {
    return run !== NO_RUN && [...this.watchers].some((watcher) => watcher.run === run);
  }

  private begin(): void {
    this.running ??= this.go().finally(() => {
      this.running = null;
      // Somebody came while it hung up.
      if (this.watchers.size > 0 && !this.stopped) this.begin();
    });
  }

  /** Gives back what is under control, and hangs up. */
  async stop(): Promise<void> {
    this.stopped = true;
    this.watchers.clear();
    await this.running;
  }

  private be(change: Partial<VehicleStatus>): void {
    this.status = { ...this.status, ...change };
    for (const { tell } of this.watchers) tell({ type: 'status', status: this.status });
  }

  private async go(): Promise<void> {
    while (this.watchers.size > 0 && !this.stopped) {
      const began = Date.now();
      if (this.link?.closed) this.lost(this.link.closed);
      else if (this.link || (await this.open())) await this.readAll();
      this.seeControl();
      // One that was lost is not asked again at once.
      if (!this.link) {
        await sleep(AGAIN_MS);
        continue;
      }
      await sleep(Math.max(0, HEARD_EVERY_MS - (Date.now() - began)));
    }
    await this.hangUp();
  }

  private async open(): Promise<boolean> {
    const at = parseAddress(this.address);
    if (!at) {
      this.be({ state: 'lost', trouble: notAnAddress(this.address) });
      return false;
    }
    const address = { ...at, tester: parseInt(this.map.tester, 16), unit: parseInt(this.map.unit, 16) };
    const opened = await VehicleLink.open(address, this.times);
    if (!opened.ok) {
      this.be({ state: 'lost', trouble: `${opened.why} Trying again.` });
      return false;
    }
    this.link = opened.link;
    return true;
  }

  /** Everything that any screen shows, once. */
  private async readAll(): Promise<void> {
    const { link, map } = this;
    if (!link) return;
    const wanted = new Set<Identifier>();
    for (const { reads } of this.watchers)
      for (const value of reads) {
        const identifier = identifierWith(map, value);
        if (identifier) wanted.add(identifier);
      }
    let values: Heard['values'] = {};
    let trouble: string | null = null;
    for (const identifier of wanted) {
      const replied = await link.ask({ service: 'read', identifier: numberOf(identifier) });
      if (!replied.ok && !replied.isOpen) return this.lost(replied.why);
      const found = replied.ok ? valuesOf(identifier, replied.answer.data) : null;
      if (found) values = { ...values, ...found };
      else trouble = `${identifier.name}: ${replied.ok ? 'what came does not fit the map.' : replied.why}`;
    }
    // It reads once all of it was read: one that only lets itself be spoken to does not.
    if (trouble !== this.status.trouble || this.status.state !== 'reading')
      this.be({ state: 'reading', trouble });
    this.hear(values);
  }

  /** What was heard is kept for the test that is looked at; a screen of no test is told it all the same. */
  private hear(values: Heard['values']): void {
    const run = [...this.watchers].findLast((watcher) => watcher.run !== NO_RUN)?.run ?? NO_RUN;
    if (this.log?.run !== run) this.log = { run, heard: [], began_ms: Date.now() };
    const { control } = this.status;
    const heard: Heard = {
      t_s: (Date.now() - this.log.began_ms) / 1000,
      values,
      asked: control ? [control.value] : [],
    };
    if (run !== NO_RUN) this.log.heard.push(heard);
    if (this.log.heard.length > MOST_HEARD) this.log.heard.shift();
    for (const watcher of this.watchers)
      if (watcher.run === run || watcher.run === NO_RUN) watcher.tell({ type: 'heard', heard });
  }

  /** The link gives control back by itself after its time. */
  private seeControl(): void {
    const { control } = this.status;
    const identifier = control && identifierWith(this.map, control.value);
    if (!identifier || !this.link) return;
    if (this.link.goesOn.includes(numberOf(identifier)))
      this.ended(couldNot(control, 'Its time is over, and the unit goes on.'));
    if (linkHas(this.link, identifier)) return;
    this.ended({ says: `${control.name}: given back by itself after ${CONTROL_S} s.`, isGrave: false });
  }

  private ended(said: ControlSaid): void {
    if (!said.isGrave) this.kept.forget();
    this.be({ control: null, said });
  }

  private lost(why: string): void {
    const { control } = this.status;
    this.link = null;
    this.be({ state: 'lost', trouble: `${why} Trying again.` });
    if (control) this.ended(couldNot(control, why));
  }

  /**
   * Has the unit do something for a run that a screen looks at.
   *
   * @returns why it does not, in a sentence; null where it does
   */
  async take(run: string, value: string, state: string, since: string): Promise<string | null> {
    // Two screens may ask at once: the second is told so.
    if (this.taking) return 'Something is being taken under control already.';
    this.taking = true;
    try {
      return await this.taken(run, value, state, since);
    } finally {
      this.taking = false;
    }
  }

  private async taken(run: string, value: string, state: string, since: string): Promise<string | null> {
    const { link, map } = this;
    const identifier = identifierWith(map, value);
    const field = identifier?.fields.find(({ id }) => id === value);
    const byte = field?.kind === 'state' ? field.states.find(({ name }) => name === state)?.value : undefined;
    if (!identifier?.controllable || byte === undefined)
      return 'The map has nothing of that name that can be controlled.';
    if (!this.isLookedAt(run))
      return 'Nobody looks at this test: nothing is controlled without somebody there.';
    if (this.status.control) return `${this.status.control.name} is under control: give it back first.`;
    if (!link || link.closed)
      return 'The vehicle’s interface does not answer. Do it by hand, as the step says.';
    const standing = await this.stands(link);
    if (standing) return standing;
    const control: VehicleControl = { value, name: identifier.name, state, run, since };
    // Written down first: from here on it may be under control, whatever becomes of this program.
    this.kept.keep(control);
    const session = await link.session('extended');
    const replied = session.ok ? await link.control(numberOf(identifier), byte) : session;
    if (replied.ok) {
      this.be({ control, said: null });
      // The screen may have been left as it was taken, and the line hung up with it.
      if (link !== this.link)
        this.ended(linkHas(link, identifier) ? couldNot(control, 'The line was closed.') : GIVEN_BACK);
      else if (!this.isLookedAt(run)) await this.giveBack(LEFT);
      return null;
    }
    this.ended(
      !linkHas(link, identifier)
        ? { says: `${identifier.name}: not taken. ${replied.why}`, isGrave: false }
        : couldNot(control, replied.why),
    );
    return replied.why;
  }

  /** @returns why nothing may be controlled: it moves, or does not say that it stands */
  private async stands(link: VehicleLink): Promise<string | null> {
    const identifier = identifierWith(this.map, 'speed');
    const asked: Replied | null =
      identifier && (await link.ask({ service: 'read', identifier: numberOf(identifier) }));
    const speed =
      identifier && asked?.ok && asked.answer.service === 'read'
        ? valuesOf(identifier, asked.answer.data)?.speed
        : null;
    if (speed === 0) return null;
    return typeof speed === 'number'
      ? 'The vehicle moves: nothing is controlled.'
      : 'The vehicle does not say that it stands still: nothing is controlled. Do it by hand, as the step says.';
  }

  /** Gives back what is under control. */
  async giveBack(says = 'Given back: the unit has its own way again.'): Promise<void> {
    const { control } = this.status;
    const identifier = control && identifierWith(this.map, control.value);
    if (!identifier) return;
    const isBack = this.link ? await this.link.giveBack(numberOf(identifier)) : false;
    // The line may have failed meanwhile, and said so.
    if (this.status.control !== control) return;
    this.ended(
      isBack ? { says, isGrave: false } : couldNot(control, this.link?.closed ?? 'The unit refused.'),
    );
    if (isBack) await this.link?.session('default');
  }

  /** Somebody has read what became of a control that was left, or could not be given back. */
  seen(): void {
    // What is under control now stays written down.
    if (!this.status.control) this.kept.forget();
    this.be({ left: null, said: null });
  }

  /** Asks for something once, on a line of its own where none is open. */
  async once<T>(work: (link: VehicleLink) => Promise<T>): Promise<T | string> {
    if (this.link && !this.link.closed) return work(this.link);
    const opened = await this.open();
    if (!opened) return this.status.trouble ?? 'The vehicle’s interface does not answer.';
    try {
      return await work(this.link!);
    } finally {
      if (this.watchers.size === 0) await this.hangUp();
    }
  }

  private async hangUp(): Promise<void> {
    const { link } = this;
    this.link = null;
    if (!link) return;
    const { control } = this.status;
    const left = await link.close();
    if (control) this.ended(left.length > 0 ? couldNot(control, 'The line was closed.') : GIVEN_BACK);
    if (!this.stopped) this.status = { ...this.status, state: 'connecting', trouble: null };
  }
}

const LEFT = 'The screen of this test was left, so control was given back.';
const GIVEN_BACK: ControlSaid = { says: LEFT, isGrave: false };

/** Whether something is, or may be, under control of a line. */
const linkHas = (link: VehicleLink, identifier: Identifier): boolean =>
  link.underControl.includes(numberOf(identifier));

const couldNot = ({ name, state }: VehicleControl, why: string): ControlSaid => ({
  says: `${name} was told “${state}” and could not be given back. ${why} A unit that hears nothing takes itself back within 5 s: look that it does, or switch off.`,
  isGrave: true,
});
