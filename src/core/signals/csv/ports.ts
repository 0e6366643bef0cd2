/** Words by which loggers name what is read at a port; the first that fits counts. */
const PORT_WORDS: readonly (readonly [RegExp, string])[] = [
  [/^pedal( force)?$|foot force/i, 'pedal'],
  [/track ?1/i, 'track-1'],
  [/track ?2/i, 'track-2'],
  [/sensor supply|supply of the sensor/i, 'sensor'],
  [/regen\w* (asked|request)|request\w* (of|from) the machine/i, 'requested'],
  [/regen\w* grant|^granted/i, 'granted'],
  [/(brake |total )?torque asked|asked torque/i, 'asked'],
  [/^(vehicle )?speed$/i, 'speed'],
  [/capacitor|^store\b/i, 'store'],
  [/valve current|current of (a|the) valve/i, 'valve'],
  [/front.?left|\bFL\b/i, 'front-left'],
  [/front.?right|\bFR\b/i, 'front-right'],
  [/rear.?left|\bRL\b/i, 'rear-left'],
  [/rear.?right|\bRR\b/i, 'rear-right'],
  [/activ|work(ing)?\b|control/i, 'activation'],
  [/suppl|vac|depress/i, 'supply'],
  [/front/i, 'front'],
  [/rear|back/i, 'rear'],
  [/out|boost|slave/i, 'output'],
  [/\bin\b|inlet|input|in_|_in|master/i, 'input'],
  [/vol/i, 'volume'],
];

/** The same in other languages: what they seem to say is asked, never taken for granted. */
const FOREIGN_WORDS: readonly (readonly [RegExp, string])[] = [
  [/arbeits|steuer|commande|travail|lavoro|comando|trabajo|mando/i, 'activation'],
  [/unterdruck|vakuum|versorgung|\bvide\b|d[ée]pression|alimentation|vuoto|suministro|podtlak/i, 'supply'],
  [/vorn|vorder|avant|anterior|delanter/i, 'front'],
  [/hint|arri[eè]re|posterior|traser/i, 'rear'],
  [/\baus(gang)?|ausgang|sortie|uscita|salida|sa[ií]da/i, 'output'],
  [/\bein(gang)?|eingang|entr[ée]e|ingresso|entrada/i, 'input'],
];

/** The port that a column's name seems to say. */
export interface PortGuess {
  readonly port: string;
  /** Said in another language: to be asked. */
  readonly foreign: boolean;
}

/** @param taken ports that other columns have */
export function guessPort(name: string, taken: ReadonlySet<string>): PortGuess | null {
  const among = (words: typeof PORT_WORDS) =>
    words.find(([word, port]) => word.test(name) && !taken.has(port))?.[1];
  const foreign = among(FOREIGN_WORDS);
  if (foreign) return { port: foreign, foreign: true };
  const port = among(PORT_WORDS);
  return port ? { port, foreign: false } : null;
}

/** Whether a name says something that a log of brakes has: a port or a time. */
export const saysSomething = (name: string): boolean =>
  guessPort(name, new Set()) !== null || TIME_WORDS.test(name);

/** Names of a column of time. */
export const TIME_WORDS =
  /^(t|time|zeit|timestamp|date|datum|elapsed|sec(onds?)?|uhrzeit|clock|temps|heure|tempo|ora|tiempo|hora)\b|time/i;

/** Ports as a person calls them. */
export const PORT_NAMES: Readonly<Record<string, string>> = {
  input: 'Fluid in',
  output: 'Fluid out',
  supply: 'Vacuum supply',
  activation: 'Activation',
  front: 'Front circuit',
  rear: 'Rear circuit',
  volume: 'Volume',
  pedal: 'Pedal force',
  'track-1': 'Track 1 of the pedal’s sensor',
  'track-2': 'Track 2 of the pedal’s sensor',
  sensor: 'Supply of the pedal’s sensor',
  asked: 'Torque asked of the brakes',
  requested: 'Torque asked of the machine',
  granted: 'Torque granted by the machine',
  speed: 'Speed',
  store: 'Capacitor store',
  valve: 'Current of a valve',
  'front-left': 'Brake front left',
  'front-right': 'Brake front right',
  'rear-left': 'Brake rear left',
  'rear-right': 'Brake rear right',
};
