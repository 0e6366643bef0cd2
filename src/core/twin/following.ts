import type { Family } from '../contract/family';
import { handsOff, type PartsNow } from '../model/motion';
import type { Running } from '../model/running';
import { atWork, isStill, pressedBy, switchedOn, type Shown } from './at-work';

/** What gauges tell of something at work. */
export interface Followed {
  /** What the hand is at, SI. */
  readonly input: number;
  /** Whether anything feeds it. */
  readonly fed: boolean;
  /** Vacuum that is read where it is supplied, Pa; null where none is read. */
  readonly supply_Pa: number | null;
}

/** A supply that is read further than this from the one of the twin is taken over, while nothing is pressed, Pa. */
const OTHER_SUPPLY_PA = 7_000;
/** Nothing is pressed below this part of what the hand can. */
const AT_REST = 0.01;
/** While its feed comes up so much of its time goes by in one moment, s. */
const COMES_UP_S = 2;

/**
 * A healthy twin that goes where the gauges say that the hand is: its parts tell where those of a healthy unit would be. What is inside
 * a real one no gauge shows.
 */
export class Following {
  private running: Running;
  private supply_Pa: number;
  private fed = false;
  /** Where its parts were as its feed came up, a moment ago; null once they stand. */
  private comesUp: PartsNow | null = null;

  /** @throws RangeError where the family is known at rest only */
  constructor(
    private readonly family: Family,
    private readonly profile: unknown,
    private readonly around: Omit<Shown, 'fault'>,
  ) {
    this.supply_Pa = around.supply_Pa;
    this.running = this.anew();
  }

  private anew(): Running {
    const { family, profile, around, supply_Pa } = this;
    return atWork(family, profile, { ...around, supply_Pa, fault: null }, 'rest');
  }

  /** Takes in what the gauges tell now, so many seconds after the last time. @returns where its parts are */
  follow({ input, fed, supply_Pa }: Followed, seconds: number): PartsNow {
    const { commands } = this.family.motion!;
    const { id, most, speed } = pressedBy(commands);
    const isReleased = input < AT_REST * most;
    if (fed && isReleased && supply_Pa !== null && Math.abs(supply_Pa - this.supply_Pa) > OTHER_SUPPLY_PA) {
      this.supply_Pa = supply_Pa;
      this.running = this.anew();
      this.fed = false;
    }
    if (fed !== this.fed) {
      this.fed = fed;
      this.running.set(fed ? switchedOn(commands) : handsOff(commands));
      this.comesUp = fed ? this.running.parts() : null;
    }
    if (this.comesUp) {
      this.running.advance(COMES_UP_S);
      const now = this.running.parts();
      this.comesUp = isStill(this.comesUp, now) ? null : now;
      return now;
    }
    const set = this.running.hands[id] as number;
    const aim = Math.min(most, Math.max(0, input));
    if (aim !== set) {
      const way = Math.abs(aim - set);
      this.running.set({ [id]: aim, [speed.id]: Math.min(speed.most, way / Math.max(seconds, 1e-3)) });
    }
    this.running.advance(seconds);
    return this.running.parts();
  }
}
