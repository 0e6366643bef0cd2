/** @jest-environment node */
import { renderToStaticMarkup } from 'react-dom/server';
import type { Block } from '@/core/documents/document';
import { DocumentView } from './document-view';
import { Overdue } from './overdue';

const shown = (...blocks: Block[]) =>
  renderToStaticMarkup(<DocumentView document={{ name: 'D', blocks }} label="Report" />);
/** The words alone, without markup and styles. */
const words = (html: string) =>
  html
    .replace(/<style[^>]*>.*?<\/style>/gs, '')
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

describe('a document on the screen', () => {
  test('shows every piece in order, under its own kind of markup', () => {
    const html = shown(
      { kind: 'title', text: 'Title', aside: ['GF-1', 'today'] },
      { kind: 'headline', text: 'Headline' },
      { kind: 'lead', text: 'Lead' },
      { kind: 'facts', facts: [['Unit', 'RV']] },
      { kind: 'list', items: [{ lead: 'First:', text: 'one' }] },
      { kind: 'boxes', items: ['Drain'] },
      { kind: 'page-break' },
      { kind: 'heading', text: 'Numbers' },
      { kind: 'paragraph', text: 'Words' },
    );
    expect(words(html)).toBe('Title GF-1 today Headline Lead Unit RV First: one Drain Numbers Words');
    for (const tag of ['<h1', '<h2', '<dl', '<ul', '<article']) expect(html).toContain(tag);
  });
  test('a verdict is a word and a shape; small words stand under it; struck text is struck', () => {
    const html = shown({
      kind: 'table',
      name: 'Results',
      columns: ['Result', 'Verdict'],
      widths: [70, 30],
      rows: [
        [
          { text: 'Crack', struck: true },
          { text: 'Fails', verdict: 'fails', small: ['V-41 past calibration'] },
        ],
      ],
    });
    expect(words(html)).toBe('Result Verdict Crack Fails V-41 past calibration');
    expect(html).toMatch(/<svg[\s\S]*<rect/);
    expect(html).toContain('line-through');
  });
  test('what a customer wrote is text, whatever it looks like', () => {
    const html = shown({ kind: 'facts', facts: [['You told us', '<img src=x onerror=alert(1)>']] });
    expect(html).not.toContain('<img');
    expect(html).toContain('&lt;img');
  });
  test('a gauge past its date is named; none is nothing at all', () => {
    expect(words(renderToStaticMarkup(<Overdue tags={['V-41', 'G-2']} />))).toBe(
      '· V-41, G-2 past calibration',
    );
    expect(renderToStaticMarkup(<Overdue tags={[]} />)).toBe('');
  });
});
