/** @jest-environment node */
import { renderToStaticMarkup } from 'react-dom/server';
import type { ReactElement } from 'react';
import type { Stretch } from '@/core/signals/analysis';
import { told, untold, type Estimate } from '@/core/signals/estimate';
import { sentence } from '@/core/quantities/sentence';
import { Legend } from './legend';
import { Pins } from './pins';
import { noteFrom } from './use-pins';
import { StretchEntry } from './stretch-entry';

const html = (element: ReactElement) => renderToStaticMarkup(element);
/** The words alone, without markup and styles. */
const words = (element: ReactElement) =>
  html(element)
    .replace(/<style[^>]*>.*?<\/style>/gs, '')
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
const ignore = () => undefined;
const nothing = () => Promise.resolve();
const BAR = 1e5;

const entry = (name: string, quantity: 'ratio' | 'pressure', estimate: Estimate) => ({
  id: name,
  name,
  quantity,
  estimate,
});
const NOT_REACHED = untold('Runout was not reached.', 'Pull on to more than {input} in.', {
  input: { value: 24 * BAR, quantity: 'pressure' },
});
const pull = (boost: number, u: number): Stretch => ({
  kind: 'pull',
  name: 'Pull with assist',
  from_s: 46.44,
  to_s: 60.61,
  results: [
    entry('Boost ratio', 'ratio', told(boost, u, 'ratio')),
    entry('Runout input', 'pressure', NOT_REACHED),
    entry('Runout output', 'pressure', NOT_REACHED),
  ],
  lines: [],
  points: [],
  supply_Pa: null,
  notes: [sentence('A note of {at}.', { at: { value: 80 * BAR, quantity: 'pressure' } })],
});

describe('a stretch of a trace', () => {
  const shown = (others: Stretch | null) =>
    words(<StretchEntry stretch={pull(3.6, 0.002)} others={others} chosen={false} onChoose={ignore} />);
  test('says where it lies, what it tells with its limits, and its notes', () => {
    expect(shown(null)).toMatch(/^Pull with assist 46\.4 to 60\.6 s Boost ratio 3\.600 ± 0\.004/);
    expect(shown(null)).toMatch(/A note of 80\.0 bar\.$/);
  });
  test('what it could not tell is said once for all that share the reason', () => {
    const text = shown(null);
    expect(text).toContain(
      'Runout input, Runout output: could not tell. Runout was not reached. Pull on to more than 24.0 bar in.',
    );
    expect(text.match(/Runout was not reached/g)).toHaveLength(1);
  });
  test('beside another trace: as before within both limits, moved beyond them', () => {
    expect(shown(pull(3.603, 0.002))).toMatch(/3\.603 ± 0\.004 ?, as before/);
    expect(shown(pull(3.7, 0.002))).toMatch(/3\.700 ± 0\.004 ?, moved/);
    expect(shown(pull(3.7, 0.2))).toMatch(/as before/);
  });
  test('where the other trace does not tell it, nothing stands beside it', () => {
    const without = { ...pull(3.6, 0.002), results: [] };
    expect(shown(without)).not.toMatch(/moved|as before/);
  });
});

describe('the lines of a plot are named in words', () => {
  const channels = [
    { name: 'G-12', port: 'input', quantity: 'pressure' as const },
    { name: 'Thermometer', port: null, quantity: 'temperature' as const },
  ];
  test('against time: every channel, the fits, and the trace laid beside', () => {
    const legend = <Legend against="time" channels={channels} expected other="Before the repair" />;
    expect(words(legend)).toBe('G-12 Thermometer fit Before the repair (paler)');
    expect(html(legend)).toContain('var(--hp-input)');
    expect(html(legend)).toContain('var(--hp-quiet)');
  });
  test('against input: the healthy unit only where it is known', () => {
    const legend = (expected: boolean) =>
      words(<Legend against="input" channels={channels} expected={expected} other={null} />);
    expect(legend(true)).toMatch(/healthy unit on this supply, with its band/);
    expect(legend(false)).toBe('readings: full going up, open coming down fitted');
  });
});

describe('notes pinned to moments', () => {
  const notes = [
    { id: '00000000-0000-4000-8000-000000000001', at_s: 12.34, words: '<b>Handle</b> slipped' },
    { id: '00000000-0000-4000-8000-000000000002', at_s: 61, to_s: 64.5, words: 'Heavy from here' },
  ];
  const pins = (at: string | null, until = '', typed = '') => (
    <Pins
      notes={notes}
      pins={{
        draft: at === null ? null : { at, until, words: typed },
        type: ignore,
        press: ignore,
        begin: ignore,
        pin: nothing,
        workOut: nothing,
        drop: nothing,
        leave: ignore,
      }}
    />
  );
  test('stand in their order with their times, markup as text', () => {
    expect(words(pins(null))).toMatch(
      /^1 12\.3 s &lt;b&gt;Handle&lt;\/b&gt; slipped Take off 2 61\.0 to 64\.5 s Heavy from here Take off/,
    );
    expect(html(pins(null))).toContain('aria-label="Take note 2 off"');
  });
  test('are of a moment, or of a range whichever end was pressed first; an end that is no time is refused', () => {
    const id = '00000000-0000-4000-8000-000000000003';
    const note = (at: string, until: string, said = 'Hiss') => noteFrom(id, { at, until, words: said });
    expect(note('12.3456', '', ' Hiss ')).toEqual({ id, at_s: 12.346, words: 'Hiss' });
    expect(note('12', '15,5')).toEqual({ id, at_s: 12, to_s: 15.5, words: 'Hiss' });
    expect(note('12', '9')).toEqual({ id, at_s: 9, to_s: 12, words: 'Hiss' });
    expect(note('12', '12')).toEqual({ id, at_s: 12, words: 'Hiss' });
    expect(note('12', 'soon')).toBe('Until: “soon” is not a time in seconds.');
    expect(note('now', '')).toBe('From: “now” is not a time in seconds.');
  });
  test('a moment that was pressed asks for words, and nothing is pinned without them', () => {
    expect(html(pins('33.3'))).toMatch(/value="33\.3"/);
    expect(html(pins('33.3'))).toMatch(/<button[^>]*disabled[^>]*>Pin/);
    expect(html(pins('33.3', '', 'Hiss'))).not.toMatch(/<button[^>]*disabled[^>]*>Pin/);
  });
  test('a range can be worked out without words, a moment cannot', () => {
    const disabled = /<button[^>]*disabled[^>]*>Work this range out/;
    expect(html(pins('33.3'))).toMatch(disabled);
    expect(html(pins('33.3', '40'))).not.toMatch(disabled);
  });
});
