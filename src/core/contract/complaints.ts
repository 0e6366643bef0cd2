/**
 * What is complained of, how it is heard in a customer's words, and how it is said. A word counts with whatever is hung on to it,
 * "sink" in "sinking", unless a space ends it: "hot " is not in "hotel". The table is a judgement, and it is shown where it counts.
 */
export const COMPLAINTS = {
  hard: {
    says: 'the pedal is hard',
    words: ['hard ', 'harder', 'hardest', 'heavy', 'stiff', 'effort', 'no assist', 'no help'],
  },
  soft: { says: 'the pedal is soft', words: ['soft', 'spong', 'springy', 'mushy'] },
  sinks: { says: 'the pedal sinks', words: ['sink', 'sank', 'floor'] },
  low: { says: 'the pedal goes far down', words: ['low pedal', 'far down', 'long travel', 'travels far'] },
  fades: {
    says: 'the help does not last',
    words: ['fade', 'fading', 'second push', 'second time', 'after standing', 'does not last', 'engine off'],
  },
  slow: { says: 'the help comes slowly', words: ['slow', 'late ', 'delay', 'lag '] },
  drags: { says: 'the brakes drag', words: ['drag', 'bind', 'hot ', 'stay on', 'stays on', 'stick'] },
  grabs: { says: 'the brakes grab', words: ['grab', 'snatch', 'jerk', 'touchy', 'fierce'] },
  pulls: { says: 'it pulls to one side', words: ['pull', 'to one side', 'veer'] },
  lamp: { says: 'a lamp is lit', words: ['lamp', 'light ', 'lights ', 'warning'] },
  fluid: { says: 'fluid is lost', words: ['fluid', 'weep', 'wet ', 'level'] },
  'runs-often': {
    says: 'the pump runs often',
    words: ['pump runs', 'runs often', 'motor runs', 'keeps running', 'buzz', 'ticks'],
  },
  hiss: { says: 'it hisses', words: ['hiss', 'whistl', 'air noise'] },
} as const satisfies Record<string, { readonly says: string; readonly words: readonly string[] }>;

export type ComplaintId = keyof typeof COMPLAINTS;
export const COMPLAINT_IDS = Object.keys(COMPLAINTS) as [ComplaintId, ...ComplaintId[]];

/** How many times as likely a fault is where somebody complains of what it brings. */
export const HEARD = 3;

/** What is complained of in a customer's words. */
export function heardIn(words: string): ComplaintId[] {
  const text = ` ${words.toLowerCase().replace(/[^\p{L}]+/gu, ' ')} `;
  return COMPLAINT_IDS.filter((id) => COMPLAINTS[id].words.some((word) => text.includes(` ${word}`)));
}
