/** Too much is being done already: what was asked for is not begun. */
export class Busy extends Error {
  override readonly name = 'Busy';
  constructor(what: string) {
    super(`The server is busy with ${what}. Nothing was taken in; try again in a moment.`);
  }
}

/** How much of one kind is done at once, and how much waits for it. */
interface Bounds {
  readonly most: number;
  readonly mostWaiting: number;
  /** What is done there, for the sentence that says so: “other files”. */
  readonly what: string;
}

/** A room that holds so many at once. Others wait at the door, so many of them; who comes then is sent away. */
export class Room {
  private inside = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(private readonly bounds: Bounds) {}

  /**
   * Does something in it, as soon as there is a place.
   *
   * @param mayWaitLong it is of the application's own, and waits however many wait already
   * @throws Busy where nobody more may wait
   */
  async within<T>(work: () => Promise<T>, mayWaitLong = false): Promise<T> {
    const { most, mostWaiting, what } = this.bounds;
    if (this.inside >= most) {
      if (!mayWaitLong && this.waiting.length >= mostWaiting) throw new Busy(what);
      // Whoever leaves hands the place over.
      await new Promise<void>((enter) => this.waiting.push(enter));
    } else this.inside += 1;
    try {
      return await work();
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.inside -= 1;
    }
  }
}

const ROOMS = {
  /** Pictures while they are made anew: one of 100 million pixels takes some 30 MB. */
  pictures: { most: 2, mostWaiting: 6, what: 'other pictures' },
  /** Files of a job, of a profile, of a logger: one of 100 MB takes some hundred MB while it is read. */
  files: { most: 1, mostWaiting: 4, what: 'another file' },
  diagnoses: { most: 2, mostWaiting: 4, what: 'other questions' },
} as const satisfies Record<string, Bounds>;

export type RoomName = keyof typeof ROOMS;

/** Pages and routes are bundled apart and share one process: the rooms are those of the process. */
const held = globalThis as typeof globalThis & { hardPedalRooms?: Map<RoomName, Room> };

/** The one room of that kind. */
export function roomOf(name: RoomName): Room {
  held.hardPedalRooms ??= new Map();
  const room = held.hardPedalRooms.get(name) ?? new Room(ROOMS[name]);
  held.hardPedalRooms.set(name, room);
  return room;
}
