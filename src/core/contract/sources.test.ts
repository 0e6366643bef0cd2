import fc from 'fast-check';
import {
  afterOpening,
  liveWords,
  nextSource,
  SOURCES,
  sourceSetSchema,
  sourcesIn,
  sourceState,
  supplied,
  withSource,
  type SourceId,
  type Sources,
} from './sources';

const states = (id: SourceId) => Object.keys(SOURCES[id]);
const someSources = fc
  .record(
    Object.fromEntries(
      (Object.keys(SOURCES) as SourceId[]).map((id) => [id, fc.constantFrom(...states(id))]),
    ),
    { requiredKeys: [] },
  )
  .map((all) => all as Sources);

test('a state is one of its source, and is asked for in a sentence', () => {
  expect(sourceSetSchema.safeParse({ source: 'engine', to: 'idle' }).success).toBe(true);
  expect(sourceSetSchema.safeParse({ source: 'engine', to: 'full' }).success).toBe(false);
  expect(() => sourceState({ source: 'pump', to: 'idle' })).toThrow(RangeError);
  for (const id of Object.keys(SOURCES) as SourceId[])
    for (const to of states(id)) expect(sourceState({ source: id, to }).ask).toMatch(/^[A-Z].*\.$/);
});

test('the first state of each source is the one at rest: nothing comes of it', () => {
  for (const id of Object.keys(SOURCES) as SourceId[])
    expect(sourceState({ source: id, to: states(id)[0]! })).toMatchObject({
      live: false,
      supplies: false,
      reaches: null,
    });
});

test('the engine stops before the ignition is off, and the ignition is on before it starts', () => {
  const asked = (from: Sources, needed: Sources): string[] => {
    const set = nextSource(from, needed);
    return set ? [sourceState(set).said, ...asked(withSource(from, set), needed)] : [];
  };
  expect(asked({ ignition: 'on', engine: 'idle' }, { engine: 'off', ignition: 'off' })).toEqual([
    'Engine is off',
    'Ignition is off',
  ]);
  expect(asked({}, { engine: 'idle', ignition: 'on' })).toEqual(['Ignition is on', 'Engine idles']);
  // What is to be at rest comes first, whatever it is.
  expect(asked({ pump: 'on' }, { ignition: 'on', pump: 'off' })).toEqual(['Pump is off', 'Ignition is on']);
});

test('whatever stood and whatever is needed, asking comes to an end, and all stands as needed', () => {
  fc.assert(
    fc.property(someSources, someSources, (from, { charge: _charge, ...needed }) => {
      let now = from;
      let asked = 0;
      for (let set = nextSource(now, needed); set; set = nextSource(now, needed)) {
        now = withSource(now, set);
        asked += 1;
        expect(asked).toBeLessThanOrEqual(Object.keys(needed).length);
      }
      expect(now).toMatchObject(needed);
    }),
  );
});

test('a source that supplies the unit leaves it unknown what was spent; one that does not leaves it', () => {
  expect(withSource({ charge: 'spent' }, { source: 'engine', to: 'idle' })).toEqual({ engine: 'idle' });
  expect(withSource({ charge: 'spent' }, { source: 'engine', to: 'off' })).toEqual({
    charge: 'spent',
    engine: 'off',
  });
});

test('once lines were off nothing is live, and what is isolated stays isolated', () => {
  fc.assert(
    fc.property(someSources, (sources) => {
      const after = afterOpening(sources);
      expect(liveWords(after)).toEqual([]);
      expect(supplied(after)).toBe(false);
      for (const { source, to, live } of sourcesIn(sources))
        if (!live && source !== 'charge') expect(after[source]).toBe(to);
    }),
  );
});
