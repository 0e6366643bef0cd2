/** @jest-environment node */
import fc from 'fast-check';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import type { Block } from '@/core/documents/document';
import { pdfOf } from './pdf';

/** What was set on paper, in points from the top left corner of its page. */
interface Mark {
  readonly page: number;
  readonly kind: 'line' | 'picture' | 'rule' | 'box';
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly words: string;
  readonly size: number;
  readonly bold: boolean;
}

/** Each call by which the library sets something comes by here first. */
const marks: Mark[] = [];
type Paper = PDFKit.PDFDocument & { _fontSize: number; _font: { name: string } };
const library = PDFDocument.prototype as unknown as Record<string, (...given: never[]) => unknown>;
const own = { ...library };
let pages: object[] = [];
const put = (paper: Paper, mark: Partial<Mark>) => {
  if (!pages.includes(paper.page)) pages.push(paper.page);
  const plain = {
    kind: 'line',
    left: 0,
    top: 0,
    right: 0,
    bottom: 0,
    words: '',
    size: 0,
    bold: false,
  } as const;
  marks.push({ ...plain, page: pages.indexOf(paper.page), ...mark });
};
function listen(name: string, tell: (paper: Paper, given: never[]) => void) {
  own[name] = library[name]!;
  library[name] = function heard(this: Paper, ...given: never[]) {
    tell(this, given);
    return own[name]!.apply(this, given);
  };
}
let from = [0, 0];
const NAMES = ['_fragment', 'image', 'moveTo', 'lineTo', 'rect'];
beforeAll(() => {
  // One line of words, as the library breaks them.
  listen('_fragment', (paper, given) => {
    const [words, x, y, options] = given as unknown as [
      string,
      number,
      number,
      Record<string, number & string>,
    ];
    const said = `${words}`.trim();
    if (said === '') return;
    const wide = paper.widthOfString(said);
    const left = options.align === 'right' && options.width ? x + options.lineWidth! - wide : x;
    const high = { top: y, bottom: y + paper.currentLineHeight() };
    const type = { size: paper._fontSize, bold: /bold/i.test(paper._font.name) };
    put(paper, { words: said, left, right: left + wide, ...high, ...type });
  });
  listen('image', (paper, given) => {
    const [, left, top, { fit }] = given as unknown as [unknown, number, number, { fit: [number, number] }];
    put(paper, { kind: 'picture', left, top, right: left + fit[0], bottom: top + fit[1] });
  });
  listen('moveTo', (_, given) => {
    from = given;
  });
  listen('lineTo', (paper, given) => {
    const [x, y] = given as unknown as [number, number];
    put(paper, { kind: 'rule', left: from[0]!, right: x, top: from[1]!, bottom: y });
  });
  listen('rect', (paper, given) => {
    const [left, top, wide, high] = given as unknown as [number, number, number, number];
    put(paper, { kind: 'box', left, top, right: left + wide, bottom: top + high });
  });
});
afterAll(() => NAMES.forEach((name) => (library[name] = own[name]!)));

const SEAL = 'ab'.repeat(32);
let picture: Buffer;
beforeAll(async () => {
  picture = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#445566' } })
    .jpeg()
    .toBuffer();
});
async function setOn(
  blocks: readonly Block[],
  size: 'A4' | 'LETTER' = 'A4',
  name = 'GF-1 a test',
): Promise<Mark[]> {
  marks.length = 0;
  pages = [];
  await pdfOf({ name, blocks }, size, new Map([[SEAL, picture]]));
  return [...marks];
}
const PAPER = { A4: [595.28, 841.89], LETTER: [612, 792] } as const;
/** Printers keep some 5 mm, and a folder's holes want 17 mm: 48 points. */
const MARGIN = 48;
const words = (marks_: readonly Mark[]) => marks_.filter(({ kind }) => kind === 'line');
const saying = (all: readonly Mark[], said: string | RegExp) => {
  const found = all.filter((one) => (typeof said === 'string' ? one.words === said : said.test(one.words)));
  if (found.length === 0) throw new Error(`Nowhere: ${String(said)}`);
  return found;
};
const overlap = (one: Mark, other: Mark) =>
  one.page === other.page &&
  Math.min(one.right, other.right) - Math.max(one.left, other.left) > 0.5 &&
  Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top) > 0.5;

const text = fc
  .integer({ min: 1, max: 700 })
  .map((length) => 'Seeps at the end cap. '.repeat(40).slice(0, length));
const short = fc
  .integer({ min: 1, max: 60 })
  .map((length) => 'Vacuum side held, no drop at all. '.repeat(2).slice(0, length));
const list = <T>(of: fc.Arbitrary<T>, most: number) => fc.array(of, { minLength: 1, maxLength: most });
const aCell = fc.record({
  text: fc.oneof(text, short, fc.constant('')),
  small: fc.array(short, { maxLength: 3 }),
  strong: fc.boolean(),
});
const BLOCK: fc.Arbitrary<Block> = fc.oneof(
  fc.record({
    kind: fc.constantFrom('headline' as const, 'lead' as const, 'paragraph' as const),
    text,
  }),
  fc.record({
    kind: fc.constant('list' as const),
    items: list(fc.record({ text }), 6),
    numbered: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('list' as const),
    items: list(fc.record({ lead: short, text: fc.oneof(text, fc.constant('')) }), 6),
  }),
  fc.record({ kind: fc.constant('facts' as const), facts: list(fc.tuple(short, text), 9) }),
  fc.record({ kind: fc.constant('boxes' as const), items: list(text, 5) }),
  fc.record({
    kind: fc.constant('photos' as const),
    photos: list(
      fc.record({
        sha256: fc.constantFrom(SEAL, 'lost'),
        caption: text,
        width: fc.constant(400),
        height: fc.constant(300),
      }),
      9,
    ),
  }),
  fc.record({
    kind: fc.constant('table' as const),
    name: fc.constant('T'),
    columns: fc.constant(['Reading', 'Value', 'Verdict']),
    widths: fc.constant([50, 30, 20]),
    rows: list(fc.tuple(aCell, aCell, aCell), 12),
  }),
  fc.record({ kind: fc.constant('heading' as const), text: short }),
  fc.constant({ kind: 'page-break' as const }),
);

/** A document begins with the shop's name or its title, or both. */
const BEGINNING: fc.Arbitrary<Block[]> = fc
  .tuple(
    fc.record({
      kind: fc.constant('letterhead' as const),
      name: short,
      lines: list(short, 3),
      logo: fc.constantFrom(SEAL, null),
    }),
    fc.record({
      kind: fc.constant('title' as const),
      text: short,
      aside: list(fc.constant('GF-0415 · 30 Nov'), 4),
    }),
  )
  .chain((both) => fc.constantFrom(both, both.slice(0, 1), both.slice(1)));
const BLOCKS = fc
  .tuple(BEGINNING, list(BLOCK, 8))
  .map(([first, rest]) =>
    [...first, ...rest].filter(
      ({ kind }, i, all) =>
        kind !== 'heading' || !['page-break', 'heading', undefined].includes(all[i + 1]?.kind),
    ),
  ); /** What a block says, but for captions: they are cut where they are long. */
function piecesOf(block: Block): readonly string[] {
  switch (block.kind) {
    case 'list':
      return block.items.flatMap(({ lead = '', text: body }) => [lead, body]);
    case 'facts':
      return block.facts.flat();
    case 'boxes':
      return block.items;
    case 'table':
      return block.rows.flat().flatMap(({ text: body, small = [] }) => [body, ...small]);
    case 'letterhead':
      return [block.name, ...block.lines];
    case 'title':
      return [block.text, ...block.aside];
    case 'photos':
    case 'chart':
    case 'page-break':
      return [];
    default:
      return [block.text];
  }
}
const bare = (said: string) => said.replaceAll(/\s/g, '');
const isHeading = ({ size, bold }: Mark) => bold && size === 11.5;

describe('whatever is said', () => {
  test('nothing lies over anything else, nothing leaves the margins, and every word is there', async () => {
    await fc.assert(
      fc.asyncProperty(BLOCKS, fc.constantFrom('A4' as const, 'LETTER' as const), async (blocks, size) => {
        const all = await setOn(blocks, size);
        const [wide, high] = PAPER[size];
        const foot = words(all).filter(({ top }) => top > high - MARGIN);
        // Only the foot stands in the margin: a name and a number on each page, and whole on the paper.
        expect(foot).toHaveLength(2 * pages.length);
        expect(Math.max(...foot.map(({ bottom }) => bottom))).toBeLessThan(high - 14);
        for (const one of all) {
          expect(one.left).toBeGreaterThanOrEqual(MARGIN - 0.01);
          expect(one.right).toBeLessThanOrEqual(wide - MARGIN + 0.01);
          expect(one.top).toBeGreaterThanOrEqual(MARGIN - 0.01);
          // The rule under a last row hangs below it.
          const hangs = one.kind === 'rule' ? 2 : 0.01;
          if (!foot.includes(one)) expect(one.bottom).toBeLessThanOrEqual(high - MARGIN + hangs);
        }
        const solid = all.filter(({ kind }) => kind !== 'rule');
        solid.forEach((one, i) => {
          const under = solid.slice(i + 1).find((other) => overlap(one, other));
          if (under) throw new Error(`${JSON.stringify(one)} lies over ${JSON.stringify(under)}`);
        });
        const said = bare(all.map((one) => one.words).join(''));
        for (const piece of blocks.flatMap(piecesOf)) expect(said).toContain(bare(piece));
        // A heading is on the page of what it is the heading of.
        const lines = words(all).filter((one) => !foot.includes(one));
        lines.forEach((one, i) => {
          if (isHeading(one) && lines[i + 1]) expect(lines[i + 1]!.page).toBe(one.page);
        });
        // A rule crosses no words: it may touch what hangs below their line.
        for (const rule of all.filter(({ kind }) => kind === 'rule'))
          for (const one of words(all))
            if (one.page === rule.page && one.left < rule.right)
              expect(one.top < rule.top - 3 && one.bottom > rule.top + 3).toBe(false);
      }),
      { numRuns: 40 },
    );
  });
});

describe('each piece', () => {
  const table = (rows: number, widths = [50, 30, 20]): Block => ({
    kind: 'table',
    name: 'T',
    columns: ['Reading', 'Value', 'Verdict'],
    widths,
    rows: Array.from({ length: rows }, (_, i) => [
      { text: `Row ${i + 1}`, small: ['small words'] },
      { text: '5 bar', strong: true },
      { text: 'holds', verdict: 'fails' as const },
    ]),
  });

  test('what is larger is read first: title, headline, heading, lead, text, table, small words', async () => {
    const all = await setOn([
      { kind: 'title', text: 'Title', aside: ['Aside'] },
      { kind: 'headline', text: 'Headline' },
      { kind: 'heading', text: 'Heading' },
      { kind: 'lead', text: 'Lead' },
      { kind: 'paragraph', text: 'Text' },
      { kind: 'paragraph', text: 'Strong', strong: true },
      table(1),
    ]);
    const sizes = ['Title', 'Headline', 'Heading', 'Lead', 'Text', 'Row 1', 'small words'].map(
      (said) => saying(all, said)[0]!.size,
    );
    expect(sizes).toEqual(sizes.toSorted((a, b) => b - a));
    expect(new Set(sizes).size).toBe(sizes.length);
    // Nothing is smaller than can be read on paper.
    expect(Math.min(...words(all).map(({ size }) => size))).toBeGreaterThanOrEqual(7.5);
    const bold = words(all).flatMap((one) => (one.bold ? one.words : []));
    expect(bold).toEqual([
      'Title',
      'Aside',
      'Headline',
      'Heading',
      'Strong',
      'Reading',
      'Value',
      'Verdict',
      '5 bar',
      'holds',
    ]);
    // Under the title and under the heading a rule from margin to margin, the title's first.
    const rules = all.filter(({ kind }) => kind === 'rule');
    expect(rules).toHaveLength(2 + 2);
    for (const rule of rules) expect([rule.left, rule.right]).toEqual([MARGIN, PAPER.A4[0] - MARGIN]);
    rules.slice(0, 2).forEach((rule, i) => {
      const above = saying(all, ['Title', 'Heading'][i]!)[0]!;
      expect(rule.top - above.bottom).toBeGreaterThanOrEqual(0);
      expect(rule.top - above.bottom).toBeLessThan(6);
    });
    // The aside stands at the right edge, as high as the title.
    const [title, aside] = [saying(all, 'Title')[0]!, saying(all, 'Aside')[0]!];
    expect(aside.right).toBeCloseTo(PAPER.A4[0] - MARGIN, 1);
    expect(aside.top).toBe(title.top);
  });
  test('a table has its columns by their widths, and its head again on every page', async () => {
    const all = await setOn([table(60)]);
    // 595.28 − 2·48 = 499.28 across: 50, 30 and 20 hundredths.
    const edges = [48, 48 + 0.5 * 499.28, 48 + 0.8 * 499.28];
    ['Row 1', '5 bar', 'holds'].forEach((said, i) =>
      expect(saying(all, said)[0]!.left).toBeCloseTo(edges[i]!, 6),
    );
    expect(saying(all, 'Verdict').map(({ page }) => page)).toEqual([0, 1, 2]);
    for (let i = 1; i <= 60; i += 1) expect(saying(all, `Row ${i}`)).toHaveLength(1);
    // A rule under each row and under each head.
    expect(all.filter(({ kind }) => kind === 'rule')).toHaveLength(60 + 3);
    // A page is filled before another is begun: less is left than a row is high.
    const rows = all.filter(({ words: said }) => /^Row|^small/.test(said));
    const high = rows[2]!.top - rows[0]!.top;
    const last = rows.findLast(({ page }) => page === 0)!;
    expect(PAPER.A4[1] - MARGIN - last.bottom).toBeLessThan(high);
    // Two lines to a row and little more.
    expect(high).toBeGreaterThan(20);
    expect(high).toBeLessThan(27);
  });
  test('lists are marked or counted, what leads is bold, and their words stand in one line below each other', async () => {
    const items = [
      { text: 'first '.repeat(40) },
      { lead: 'Leads', text: 'second' },
      { lead: 'Alone', text: '' },
    ];
    const all = await setOn([
      { kind: 'list', items },
      { kind: 'list', items, numbered: true },
    ]);
    expect(saying(all, '•')).toHaveLength(3);
    for (const number of ['1.', '2.', '3.']) expect(saying(all, number)).toHaveLength(1);
    for (const mark of [...saying(all, '•'), ...saying(all, /^\d\.$/)]) {
      const beside = words(all).find(({ top, left }) => top === mark.top && left > mark.right)!;
      expect(mark.left).toBe(MARGIN + 4);
      expect(beside.left).toBe(MARGIN + 20);
    }
    for (const line of saying(all, /^first/)) expect(line.left).toBe(MARGIN + 20);
    expect(saying(all, 'Leads').every(({ bold }) => bold)).toBe(true);
    expect(saying(all, 'second').every(({ bold }) => !bold)).toBe(true);
  });
  test('facts have their names on the left and what is said of them in one column', async () => {
    const long = 'Renewed. '.repeat(30).trim();
    const all = await setOn([
      {
        kind: 'facts',
        facts: [
          ['Unit', 'Tug, rear'],
          ['What was done to it, in the words of the shop', 'Short'],
          ['Work', long],
        ],
      },
    ]);
    const rows = ['Unit', 'Work'].map((name) => saying(all, name)[0]!);
    for (const row of rows) expect(row.left).toBe(MARGIN);
    for (const value of ['Tug, rear', 'Short', /^Renewed/])
      for (const line of saying(all, value)) expect(line.left).toBe(MARGIN + 150);
    expect(saying(all, 'Tug, rear')[0]!.top).toBe(rows[0]!.top);
    // A name of two lines makes room for both.
    expect(saying(all, /of the shop$/)[0]!.bottom).toBeLessThanOrEqual(rows[1]!.top);
    expect(rows[1]!.top - saying(all, /of the shop$/)[0]!.bottom).toBeLessThan(4);
  });
  test('a box to tick stands before its words, with its first line', async () => {
    const all = await setOn([{ kind: 'boxes', items: ['Fluid flushed', 'Lines closed. '.repeat(30)] }]);
    const boxes = all.filter(({ kind }) => kind === 'box');
    const firsts = [saying(all, 'Fluid flushed')[0]!, saying(all, /^Lines closed/)[0]!];
    expect(boxes).toHaveLength(2);
    boxes.forEach((box, i) => {
      expect([box.right - box.left, box.bottom - box.top]).toEqual([10, 10]);
      expect(box.left).toBeGreaterThan(MARGIN);
      expect(box.right).toBeLessThan(firsts[i]!.left);
      expect(Math.abs(box.top - firsts[i]!.top)).toBeLessThan(2);
    });
    for (const line of saying(all, /^Lines closed/)) expect(line.left).toBe(firsts[0]!.left);
  });
  test('pictures stand four in a row, each over its own words; one that is lost says so', async () => {
    const photo = (caption: string, sha256 = SEAL) => ({ sha256, caption, width: 400, height: 300 });
    const names = ['one', 'two', 'three', 'four', 'five', 'six'];
    const all = await setOn([
      { kind: 'photos', photos: [...names.map((name) => photo(name)), photo('gone', 'none')] },
      { kind: 'lead', text: 'After' },
    ]);
    const pictures = all.filter(({ kind }) => kind === 'picture');
    expect(pictures).toHaveLength(6);
    pictures.forEach((one, i) => {
      const caption = saying(all, names[i]!)[0]!;
      expect(caption.left).toBe(one.left);
      expect(caption.top - one.bottom).toBeGreaterThanOrEqual(0);
      expect(caption.top - one.bottom).toBeLessThan(4);
      // Four across: 499.28 / 4 = 124.82.
      expect(one.left).toBeCloseTo(48 + (i % 4) * 124.82, 6);
      expect(one.top).toBe(pictures[i < 4 ? 0 : 4]!.top);
      // Large enough to see something in: 4 cm across, 3 cm high.
      expect(one.right - one.left).toBeGreaterThan(113);
      expect(one.bottom - one.top).toBeGreaterThanOrEqual(84);
    });
    expect(saying(all, /^gone \(the/)[0]!.left).toBeCloseTo(48 + 2 * 124.82, 6);
    expect(pictures[4]!.top - pictures[0]!.bottom).toBeLessThan(32);
    const after = saying(all, 'After')[0]!;
    expect(after.top - pictures[4]!.bottom).toBeLessThan(32);
    expect(after.left).toBe(MARGIN);
  });
  test('a sign of the shop stands left of its name; without one the name begins at the margin', async () => {
    const head = (logo: string | null): Block => ({
      kind: 'letterhead',
      name: 'Brake room',
      lines: ['Slip Road 3', '55'],
      logo,
    });
    const plain = await setOn([head(null), { kind: 'lead', text: 'After' }]);
    expect(saying(plain, 'Brake room')[0]!.left).toBe(MARGIN);
    expect(saying(plain, 'Slip Road 3 · 55')[0]!.left).toBe(MARGIN);
    const signed = await setOn([head(SEAL), { kind: 'lead', text: 'After' }]);
    const [sign] = signed.filter(({ kind }) => kind === 'picture');
    expect(sign!.left).toBe(MARGIN);
    for (const said of ['Brake room', 'Slip Road 3 · 55']) {
      expect(saying(signed, said)[0]!.left).toBeGreaterThan(sign!.right);
      expect(saying(signed, said)[0]!.left - sign!.right).toBeLessThan(20);
    }
    expect(saying(signed, 'Brake room')[0]!.top).toBe(sign!.top);
    // What follows begins below both.
    expect(saying(signed, 'After')[0]!.top - sign!.bottom).toBeCloseTo(8, 0);
  });
  test('a chart keeps its shape and its words under it, and goes to a new page whole, heading and all', async () => {
    const chart: Block = {
      kind: 'chart',
      svg: '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 640 330"/>',
      label: '',
      caption: 'Caption',
    };
    const all = await setOn([{ kind: 'lead', text: 'Lead' }, chart]);
    // 470 points across: 470·330/640 = 242.3 high.
    const from_ = saying(all, 'Lead')[0]!.bottom;
    expect(saying(all, 'Caption')[0]!.top - from_).toBeGreaterThan(242.3);
    expect(saying(all, 'Caption')[0]!.top - from_).toBeLessThan(242.3 + 10);
    // 793.89 is the bottom; some 25 lines of a table leave less than a chart, and more than a heading.
    const rows = Array.from({ length: 26 }, () => ({ kind: 'headline' as const, text: 'Line' }));
    for (const many of [13, 14, 15, 16, 17]) {
      const set = await setOn([...rows.slice(0, many), { kind: 'heading', text: 'Over' }, chart]);
      expect(saying(set, 'Over')[0]!.page).toBe(saying(set, 'Caption')[0]!.page);
      const [line] = saying(set, 'Line').slice(-1);
      if (saying(set, 'Over')[0]!.page === 1) expect(PAPER.A4[1] - MARGIN - line!.bottom).toBeLessThan(330);
    }
  });
  test('a heading stays where there is room for it and three lines, and goes on where there is none', async () => {
    const seen = new Set<number>();
    for (let many = 42; many < 60; many += 1) {
      const lines = Array.from({ length: many }, (_, i): Block => ({ kind: 'paragraph', text: `Line ${i}` }));
      const all = await setOn([
        ...lines,
        { kind: 'heading', text: 'Over' },
        { kind: 'paragraph', text: 'Under' },
      ]);
      const [last, over, under] = [`Line ${many - 1}`, 'Over', 'Under'].map((said) => saying(all, said)[0]!);
      expect(under!.page).toBe(over!.page);
      const left = PAPER.A4[1] - MARGIN - last!.bottom;
      if (last!.page === 0 && left > 66) expect(over!.page).toBe(0);
      if (last!.page === 0 && left < 55) expect(over!.page).toBe(1);
      seen.add(over!.page);
    }
    expect([...seen]).toEqual([0, 1]);
  });
  test('at the foot of every page stand its document and its number', async () => {
    const all = await setOn([table(60)], 'LETTER', 'GF-0415 bench test');
    for (const page of [0, 1, 2]) {
      const foot = words(all).filter((one) => one.page === page && one.top > 792 - MARGIN);
      expect(foot.map((one) => one.words)).toEqual(['GF-0415 bench test', `${page + 1} of 3`]);
      expect(foot[0]!.left).toBe(MARGIN);
      expect(foot[1]!.right).toBeCloseTo(612 - MARGIN, 1);
      expect(foot[0]!.top).toBe(foot[1]!.top);
    }
  });
});
