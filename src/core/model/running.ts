import { Integrator, type Solved, type System } from '../numeric/solver';
import type { Vector } from './descriptor';
import { handsOff, type Hands, type Instant, type Level, type PartsNow, type Told } from './motion';
import type { OverTime, Together } from './over-time';

/** Far below what a gauge shows: the error of each step adds up over a hold of minutes. */
const TOLERANCE = 1e-5;
const LONGEST_S = 0.05;

/** A level on its way: from where and when it was last sent somewhere, to where and how fast, per s either way. */
interface Way {
  readonly level: Level;
  at_s: number;
  value: number;
  aim: number;
  /** Nothing moves it: its hand stands at the aim. */
  stands: boolean;
  speed: number;
  arrives_s: number;
}

/**
 * A source, a unit and a load carried through time together by one solver. What is done by hand is set between steps; a
 * level moves at the speed that it is brought to its aim with.
 */
export class Running implements System {
  readonly size: number;
  readonly scale: Float64Array;
  readonly turns;
  /** What was asked of the hands; where a level is by now stands in `at`. */
  private asked: Hands;
  private readonly at: Instant<Record<string, number | boolean | string>>;
  private readonly together: Together;
  private readonly solver: Integrator;
  private readonly out: Float64Array;
  private readonly ways: readonly Way[];

  /**
   * @param parameters those of the unit, the source and the load
   * @param inputs steady inputs that stay as they are, the room among them
   * @param ports how many gauges the unit has places for
   */
  constructor(
    model: OverTime,
    parameters: Vector,
    inputs: Readonly<Record<string, number>> & {
      readonly barometer_Pa: number;
      readonly temperature_K: number;
    },
    ports: number,
  ) {
    this.scale = Float64Array.from(model.states, ({ scale }) => scale);
    this.size = this.scale.length;
    this.asked = handsOff(model.commands);
    const { barometer_Pa, temperature_K } = inputs;
    this.at = { barometer_Pa, temperature_K, hands: { ...this.asked } };
    this.together = model.with(parameters, inputs);
    this.ways = model.commands.flatMap((command) =>
      command.kind === 'level'
        ? [
            {
              level: command,
              at_s: 0,
              value: command.usual,
              aim: command.usual,
              speed: 0,
              arrives_s: 0,
              stands: true,
            },
          ]
        : [],
    );
    this.turns = this.together.turns.map(({ beyond, flip }) => ({
      beyond: (t_s: number, y: Float64Array) => {
        this.move(t_s);
        return beyond(y, this.at);
      },
      flip,
    }));
    this.out = new Float64Array(ports);
    const initial = this.together.atRest(this.at);
    this.solver = new Integrator(this, initial, 0, { tolerance: TOLERANCE, longest_s: LONGEST_S });
  }

  get t_s(): number {
    return this.solver.t_s;
  }

  get steps(): number {
    return this.solver.steps;
  }

  /** What the hands were last asked to do. */
  get hands(): Hands {
    return this.asked;
  }

  rates(t_s: number, y: Float64Array, dy: Float64Array): void {
    this.move(t_s);
    this.together.rates(y, dy, this.at);
  }

  /** Brings every level to where it is at a time. Called at every look at the rates. */
  private move(t_s: number): void {
    const { ways, at } = this;
    for (let i = 0; i < ways.length; i += 1) {
      const way = ways[i]!;
      if (!way.stands) at.hands[way.level.id] = levelAt(way, t_s);
    }
  }

  /** Does something by hand: takes effect from now on. */
  set(change: Hands): void {
    const { t_s } = this;
    this.asked = { ...this.asked, ...change };
    Object.assign(this.at.hands, this.asked);
    for (const way of this.ways) {
      way.value = levelAt(way, t_s);
      way.at_s = t_s;
      way.aim = this.asked[way.level.id] as number;
      const speed = this.asked[way.level.speed.id] as number;
      way.speed = way.aim < way.value ? -speed : speed;
      way.arrives_s = t_s + Math.abs(way.aim - way.value) / speed;
      way.stands = way.aim === way.value;
    }
    this.solver.restart();
  }

  /**
   * Lets time go on.
   *
   * @param visit called every `every_s` with what true gauges on the ports show there; the array is used again
   */
  advance(seconds: number, every_s = 0, visit?: (t_s: number, shown: Float64Array) => void): Solved {
    return this.solver.advance(
      this.t_s + seconds,
      every_s,
      visit && ((t_s, y) => visit(t_s, this.shownAt(t_s, y))),
    );
  }

  /** What true gauges on the ports show now. */
  read(): number[] {
    return [...this.shownAt(this.t_s, this.solver.y)];
  }

  /** What the vehicle tells of itself now. */
  tells(): Told {
    this.move(this.t_s);
    return this.together.tells(this.solver.y, this.at);
  }

  /** Where every part is now. */
  parts(): PartsNow {
    this.move(this.t_s);
    return this.together.parts(this.solver.y, this.at);
  }

  private shownAt(t_s: number, y: Float64Array): Float64Array {
    this.move(t_s);
    this.together.shown(y, this.at, this.out);
    return this.out;
  }
}

const levelAt = ({ at_s, value, aim, speed, arrives_s }: Way, t_s: number): number =>
  t_s >= arrives_s ? aim : value + speed * (t_s - at_s);
