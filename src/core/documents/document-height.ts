import type { Block } from './document';

/** Height of a line of body text as set in PDF, pt. */
const LINE = 12.4;
/** Characters that go on a line of body text across the narrower page: 122 as set, less what breaking at words costs. */
const ACROSS = 112;

const lines = (text: string, across: number) =>
  text.split('\n').reduce((sum, line) => sum + Math.max(1, Math.ceil(line.length / across)), 0);

/**
 * About how high pieces of a document stand on paper, pt: estimated from their words, on the high side, before any font
 * is known. Tables, charts and breaks are not for a page that has to fit, and count as more than any page.
 */
export const heightOf = (blocks: readonly Block[]): number =>
  blocks.reduce((sum, block) => sum + blockHeight(block), 0);

function blockHeight(block: Block): number {
  switch (block.kind) {
    case 'letterhead':
      return block.logo ? 52 : 45;
    case 'title':
      return 37;
    case 'headline':
      return 34;
    case 'heading':
      return 31;
    case 'lead':
      return lines(block.text, 0.85 * ACROSS) * 1.15 * LINE + 3;
    case 'paragraph':
      return lines(block.text, ACROSS) * LINE + 3;
    case 'list':
      return block.items.reduce(
        (sum, { lead = '', text }) => sum + lines(`${lead} ${text}`, 0.95 * ACROSS) * LINE + 2,
        0,
      );
    case 'facts':
      return block.facts.reduce((sum, [, value]) => sum + lines(value, 0.7 * ACROSS) * LINE + 1, 0);
    case 'photos':
      return block.few ? 110 : Infinity;
    case 'boxes':
    case 'table':
    case 'chart':
    case 'page-break':
      return Infinity;
  }
}
