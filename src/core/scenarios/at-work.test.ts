import { faultsOf } from '../contract/family';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { handsOff, shareOf } from '../model/motion';
import { fullOf, givesAt, pressedBy, showing, stageAt, switchedOn } from '../twin/at-work';
import { drawnPorts, Showing } from '../twin/showing';

const USUAL = { room: { barometer_Pa: 101_325, temperature_K: 293.15 }, supply_Pa: 68_000 };

const shown = (kind: FamilyKind, fault: string | null = null, supply_Pa = USUAL.supply_Pa) =>
  new Showing(
    FAMILIES[kind],
    FAMILIES[kind].typical,
    { ...USUAL, supply_Pa, fault: fault === null ? null : [fault, 1] },
    'fed',
  );

const application = (kind: FamilyKind) => {
  const family = FAMILIES[kind];
  return showing(family.motion!.commands, fullOf(family, family.typical, USUAL));
};

/** Stages that an application goes through, each as it begins. */
function stagesOf(show: Showing, kind: FamilyKind): string[] {
  const seen: string[] = [];
  show.play(application(kind));
  while (show.plays) {
    show.advance(0.01);
    const stage = show.now().own.stage!.id;
    if (seen.at(-1) !== stage) seen.push(stage);
  }
  return seen;
}

/** Order of events, from handbook 18 and the sections that it names. */
const ORDER: Readonly<Record<FamilyKind, readonly string[]>> = {
  'remote-vacuum': ['rest', 'passes', 'pushes', 'holds', 'pushes', 'runout', 'releases', 'rest'],
  'rod-servo': ['rest', 'lifts', 'pulls', 'holds', 'pulls', 'releases', 'rest'],
  'pedal-vacuum': ['rest', 'air', 'pushes', 'holds', 'pushes', 'runout', 'releases', 'rest'],
  'pedal-valve': ['stands', 'springs', 'dips', 'balances', 'dips', 'balances', 'releases', 'stands'],
  'hydraulic-booster': ['through', 'throttles', 'releases', 'through'],
  'motor-pump-booster': ['stands', 'pushes', 'releases', 'stands'],
  'stored-pressure': ['stands', 'applies', 'releases', 'stands'],
  electromechanical: ['rest', 'wakes', 'helps', 'most', 'helps', 'rest'],
  'vacuum-vehicle': ['rest', 'air', 'pushes', 'holds', 'pushes', 'runout', 'releases', 'rest'],
  'motor-pump-vehicle': ['stands', 'pushes', 'releases', 'stands'],
  'hydraulic-vehicle': ['through', 'throttles', 'releases', 'through'],
  'stored-pressure-vehicle': ['stands', 'applies', 'releases', 'stands'],
  'pedal-valve-vehicle': ['stands', 'springs', 'dips', 'balances', 'dips', 'balances', 'releases', 'stands'],
  'electromechanical-vehicle': ['rest', 'wakes', 'helps', 'most', 'helps', 'releases', 'rest'],
  'by-wire-vehicle': ['ready', 'feels', 'presses', 'ready'],
};

/** Parts that are what a gauge on a port shows. */
const GAUGED: Readonly<Record<string, string>> = {
  inputFluid: 'input',
  outputFluid: 'output',
  frontBrakes: 'front',
  rearBrakes: 'rear',
  brake1: 'output',
  brake2: 'output-2',
  caliper: 'output',
  line: 'line',
  motor: 'motor',
  track1: 'track-1',
  track2: 'track-2',
  'front-left': 'front-left',
  'rear-right': 'rear-right',
  store: 'store',
};

/** Whether one list holds another in its order, with others between. */
function within(all: readonly string[], wanted: readonly string[]): boolean {
  let at = 0;
  for (const one of all) if (one === wanted[at]) at += 1;
  return at === wanted.length;
}

describe.each(FAMILY_KINDS)('%s at work', (kind) => {
  const family = FAMILIES[kind];
  const { parts, stages } = family.motion!;

  test('goes through its stages in the order of events', () => {
    const seen = stagesOf(shown(kind), kind);
    expect({ seen, wanted: within(seen, ORDER[kind]) }).toEqual({ seen, wanted: true });
  });

  test('tells of every part that it declares, with an end to its way, wherever the hand is', () => {
    const show = shown(kind);
    show.play(application(kind));
    while (show.plays) {
      show.advance(0.1);
      const now = show.now().own.parts;
      expect(Object.keys(now).sort()).toEqual(parts.map(({ id }) => id).sort());
      for (const { at, of } of Object.values(now)) {
        expect(Number.isFinite(at)).toBe(true);
        expect(of).toBeGreaterThan(0);
      }
    }
  });

  test('shows in its drawing what its gauges show', () => {
    const show = shown(kind);
    show.play(application(kind));
    const gauged = parts.flatMap(({ id }) => {
      const port = family.ports.findIndex((one) => one.id === GAUGED[id]);
      return port < 0 ? [] : [{ id, port }];
    });
    expect(gauged.length + parts.filter(({ id }) => id === 'vacuumSide').length).toBeGreaterThan(0);
    while (show.plays) {
      show.advance(0.1);
      const { parts: now, shown: gauges } = show.now().own;
      for (const { id, port } of gauged) expect(now[id]!.at).toBeCloseTo(gauges[port]!, 6);
      const supply = family.ports.findIndex(
        ({ id, quantity }) => id === 'supply' && quantity === 'depression',
      );
      if (now.vacuumSide) expect(now.vacuumSide.at).toBeCloseTo(gauges[supply]!, 6);
    }
  });

  test('with nothing on tells the first of its stages, and every stage has its words', () => {
    const rest = new Showing(family, family.typical, { ...USUAL, fault: null }, 'rest');
    expect(rest.now().own.stage?.id).toBe(stages[0]!.id);
    expect(new Set(stages.map(({ id }) => id)).size).toBe(stages.length);
    for (const { says } of stages) expect(says).toMatch(/^[A-Z].*[.]$/);
  });

  test('with each of its faults moves on, and ends where time has gone on as long', () => {
    for (const { id } of faultsOf(family, family.typical)) {
      const show = shown(kind, id);
      show.play(application(kind));
      show.advance(9);
      expect([id, show.trouble, show.plays]).toEqual([id, null, false]);
      const { own, healthy } = show.now();
      expect(healthy).not.toBeNull();
      for (const { at, of } of Object.values(own.parts))
        expect([id, Number.isFinite(at / of)]).toEqual([id, true]);
    }
  });
});

describe('what no longer happens with a fault', () => {
  test.each([
    // All the air that the tear lets past is drawn away: no full difference, so no runout.
    ['vacuum-vehicle', 'torn-diaphragm', ['rest', 'air', 'pushes', 'holds', 'releases', 'rest']],
    // No air comes quickly enough behind the diaphragm.
    ['vacuum-vehicle', 'filter-blocked', ['rest', 'air', 'pushes', 'holds', 'releases', 'rest']],
    ['vacuum-vehicle', 'electric-dead', ['empty']],
    ['vacuum-vehicle', 'check-shut', ['empty']],
    // Without its disc nothing pushes back: there is no balance in which it holds as it is pressed.
    [
      'vacuum-vehicle',
      'disc-missing',
      ['rest', 'air', 'pushes', 'runout', 'pushes', 'holds', 'releases', 'rest'],
    ],
    ['motor-pump-vehicle', 'switch-stuck-off', ['empty', 'alone', 'releases', 'empty']],
  ] as const)('%s with %s goes through no other stages than these', (kind, fault, wanted) => {
    expect(stagesOf(shown(kind, fault), kind)).toEqual(wanted);
  });
  test('a leak of the shell leaves less on the vacuum side, and the healthy one beside it as it is', () => {
    const show = shown('vacuum-vehicle', 'shell-leak');
    const { own, healthy } = show.now();
    expect(own.parts.vacuumSide!.at).toBeLessThan(0.95 * healthy!.parts.vacuumSide!.at);
    show.advance(0.1);
    expect(show.apart).toBe(true);
  });
  test('a seep that is only seen moves nothing otherwise', () => {
    const show = shown('remote-vacuum', 'seep-end-cap');
    show.play(application('remote-vacuum'));
    expect(show.played).toBe(false);
    show.advance(9.1);
    expect([show.played, show.apart]).toEqual([true, false]);
  });
});

describe('hands', () => {
  test('a hand ends the script, and both twins do the same', () => {
    const show = shown('vacuum-vehicle', 'shell-leak');
    show.play(application('vacuum-vehicle'));
    show.advance(0.2);
    show.set({ pedal_N: 50 });
    expect(show.plays).toBe(false);
    show.advance(3);
    const { own, healthy } = show.now();
    const pedal = FAMILIES['vacuum-vehicle'].ports.findIndex(({ id }) => id === 'pedal');
    expect([own.shown[pedal], healthy!.shown[pedal]]).toEqual([50, 50]);
  });
  test('the next stage is gone to and no further', () => {
    const show = shown('remote-vacuum');
    show.play(application('remote-vacuum'));
    show.toNextStage(20);
    expect(show.now().own.stage!.id).toBe('passes');
    const at_s = show.t_s;
    show.toNextStage(20);
    expect(show.now().own.stage!.id).not.toBe('passes');
    expect(show.t_s - at_s).toBeLessThan(1);
  });
  test('where no other stage comes the time is over at its end', () => {
    const show = shown('remote-vacuum');
    show.toNextStage(2);
    expect(show.t_s).toBeCloseTo(2, 6);
  });
  test('a script goes on at its own times, however time is cut', () => {
    const [fine, coarse] = [shown('rod-servo'), shown('rod-servo')];
    for (const show of [fine, coarse]) show.play(application('rod-servo'));
    for (let i = 0; i < 400; i += 1) fine.advance(0.01);
    coarse.advance(4);
    fine.now().own.shown.forEach((value, i) => {
      expect(Math.abs(value - coarse.now().own.shown[i]!)).toBeLessThan(1e-3 * Math.max(1, Math.abs(value)));
    });
  });
  test('everything that feeds is switched on, and what presses is the first level', () => {
    const { commands } = FAMILIES['remote-vacuum'].motion!;
    expect(switchedOn(commands)).toEqual({ valve: 'open', pump: true });
    expect(pressedBy(commands).id).toBe('handle_Pa');
    expect(switchedOn(FAMILIES['vacuum-vehicle'].motion!.commands)).toEqual({ key: 'engine' });
    expect(() => pressedBy([])).toThrow(/none of them presses/);
    expect(Object.keys(handsOff(commands))).toEqual(expect.arrayContaining(['valve', 'pump']));
  });
});

describe('how far a hand goes', () => {
  test('to runout where that is little more than a full application', () => {
    const family = FAMILIES['remote-vacuum'];
    const full = family.full(family.typical).input_Pa!;
    expect(fullOf(family, family.typical, USUAL)).toBeGreaterThan(full);
    // On 5 inHg runout comes before a full application: a full one it stays.
    expect(fullOf(family, family.typical, { ...USUAL, supply_Pa: 17_000 })).toBe(full);
    // A pump that could make far more than the pedal is ever pressed: no knee is gone to.
    const steered = FAMILIES['hydraulic-vehicle'];
    expect(fullOf(steered, steered.typical, USUAL)).toBe(steered.full(steered.typical).pedal_N);
  });
  test('what a healthy one gives there is what its twin shows steadily', () => {
    const family = FAMILIES['rod-servo'];
    const { input, output } = drawnPorts(family);
    expect([input.id, output.id]).toEqual(['input', 'output']);
    const gives = givesAt(family, family.typical, USUAL, 1e6, family.ports.indexOf(output));
    const known = { ...USUAL.room, supply_Pa: USUAL.supply_Pa, input_Pa: 1e6, elapsed_s: 0, applications: 0 };
    const steady = family.steady(
      family.healthy(family.typical).values,
      family.inputs.map(({ id }) => known[id as keyof typeof known] ?? 0),
    );
    const force = steady[family.readings.findIndex(({ id }) => id === family.curve.output)]!;
    expect(Math.abs(gives / force - 1)).toBeLessThan(0.01);
  });
});

test('of several stages that hold the last is told, and a stage that asks for a part there is none of is a mistake', () => {
  const stage = (id: string, least: number) => ({
    id,
    says: id,
    holds: (share: (part: string) => number) => share('rod') >= least,
  });
  const stages = [stage('first', 0), stage('second', 0.5)];
  expect(stageAt(stages, { rod: { at: 1, of: 4 } })?.id).toBe('first');
  expect(stageAt(stages, { rod: { at: 2, of: 4 } })?.id).toBe('second');
  expect(() => stageAt(stages, {})).toThrow(/no “rod”/);
  expect(shareOf({ at: 9, of: 3 })).toBe(1);
  expect(shareOf({ at: -9, of: 3 })).toBe(-1);
});
