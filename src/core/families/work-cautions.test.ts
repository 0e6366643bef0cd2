import { FAMILIES, FAMILY_KINDS } from './registry';
import { workCautions } from './work-cautions';

test.each(FAMILY_KINDS)(
  '%s: before work its lines, and of a vessel, rams and a can with a spring what it has',
  (kind) => {
    const said = workCautions(kind);
    expect(said[0]).toBe('open-line');
    const has = (part: RegExp) => FAMILIES[kind].parts.some(({ id }) => part.test(id));
    expect(said.includes('charged-vessel')).toBe(has(/^accumulator/));
    expect(said.includes('held-by-check-valves')).toBe(has(/^accumulator/));
    expect(said.includes('body-moves')).toBe(has(/^ram-line/));
    // The can of whatever vacuum works, and the casing of a booster with a motor. Handbook 2.
    const onVacuum = FAMILIES[kind].ports.some(({ quantity }) => quantity === 'depression');
    expect(said.includes('spring-casing')).toBe(onVacuum || /^electromechanical/.test(kind));
  },
);
