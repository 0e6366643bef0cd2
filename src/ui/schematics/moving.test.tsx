/** @jest-environment node */
import { renderToStaticMarkup } from 'react-dom/server';
import { FAMILIES, FAMILY_KINDS } from '@/core/families/registry';
import { Posed } from './moving';
import { SCHEMATICS } from './registry';

const drawn = (kind: keyof typeof SCHEMATICS, share: ((part: string) => number) | null) => {
  const Drawing = SCHEMATICS[kind];
  return renderToStaticMarkup(
    <Posed value={share && { share, t_s: 0.25 }}>
      <Drawing lit={null} />
    </Posed>,
  );
};

describe.each(FAMILY_KINDS)('%s', (kind) => {
  test('draws every part that its twin tells of, and no other', () => {
    const parts = new Set([...drawn(kind, () => 1).matchAll(/data-part="([^"]+)"/g)].map(([, part]) => part));
    expect([...parts].sort()).toEqual(FAMILIES[kind].motion!.parts.map(({ id }) => id).sort());
  });
  test('with every part at rest is the drawing that stands still', () => {
    expect(drawn(kind, () => 0)).toBe(drawn(kind, null));
    expect(drawn(kind, () => 1)).not.toBe(drawn(kind, null));
  });
});

/** What a drawing has of one part, with one share of its way. */
const of = (kind: keyof typeof SCHEMATICS, part: string, share: number) =>
  drawn(kind, (one) => (one === part ? share : 0))
    .split('<')
    .filter((tag) => tag.includes(`data-part="${part}"`));

test('what moves stands by its share of its way', () => {
  // Slave piston: 44 px to the left at the end of its way, from x 190.
  for (const share of [0, 0.25, 1]) {
    expect(drawn('remote-vacuum', (one) => (one === 'diaphragm' ? share : 0))).toContain(
      `H${190 - 44 * share}"`,
    );
  }
  // Control valve: 9 px up.
  expect(of('remote-vacuum', 'valve', 0.5)[0]).toContain('translate(0 -4.5)');
  // Spools go either way, 9 px.
  expect(of('pedal-valve', 'spool1', -0.5)[0]).toContain('translate(-4.5 0)');
  // Height valve: its link turns by 32° about its middle.
  expect(of('stored-pressure-vehicle', 'heightValve', 0.5)[0]).toContain('rotate(16 442 116)');
});

test('what fills is paler or stronger by its share, and a port that is shut lets nothing through', () => {
  expect(of('remote-vacuum', 'workingSide', 0.5)[0]).toContain('opacity="0.21"');
  expect(of('remote-vacuum', 'workingSide', 0)).toEqual([]);
  expect(of('vacuum-vehicle', 'airPort', 0.01)).toEqual([]);
  expect(of('vacuum-vehicle', 'airPort', 0.5)[0]).toContain('opacity="0.7"');
});

test('a pump that runs goes round half a turn in a second, and stands otherwise', () => {
  expect(of('vacuum-vehicle', 'pump', 1)[0]).toContain('rotate(45 297 43)');
  expect(of('vacuum-vehicle', 'pump', 0)[0]).toContain('rotate(0 297 43)');
});
