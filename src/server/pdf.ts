import { createRequire } from 'node:module';
import path from 'node:path';
import PDFDocument from 'pdfkit';
import svgToPdf from 'svg-to-pdfkit';
import type { Block, Cell, Document, Photo } from '@/core/documents/document';
import { plainColours } from '@/core/plot/plot';

export type PaperSize = 'A4' | 'LETTER';

const MARGIN = 48;
const INK = '#1E2426';
const FAINT = '#4A5356';
const RULE = '#CFC8B8';
/** A heading with what is kept free above and below it. */
const HEADING_HEIGHT = 32;
/** So much of a text follows its heading on the same page. */
const SOME_LINES = 28;
const CHART = { most: 470, shape: 330 / 640, caption: 30 } as const;
const LOGO = { width: 110, height: 44 };
const PHOTOS_ACROSS = 4;
const PHOTO_HEIGHT = 84;
const PHOTO_ROW = PHOTO_HEIGHT + 30;
const FACT_INDENT = 150;
const BOX_INDENT = 24;
const TABLE_HEAD = 16;
const BODY = 9.5;
const SMALL = 8;

/** Fonts that ship with the application, as files that a PDF can carry. */
function fontFile(weight: '400Regular' | '700Bold'): string {
  const require = createRequire(path.join(process.cwd(), 'package.json'));
  const folder = path.dirname(require.resolve('@expo-google-fonts/atkinson-hyperlegible-next/package.json'));
  return path.join(folder, weight, `AtkinsonHyperlegibleNext_${weight}.ttf`);
}

export const FONT_FILES = () => [fontFile('400Regular'), fontFile('700Bold')];

/** Sets a document as PDF: text as text, charts as vectors, page numbers at the foot. */
export function pdfOf(
  document: Document,
  size: PaperSize,
  pictures: ReadonlyMap<string, Buffer> = new Map(),
): Promise<Buffer> {
  const pdf = new PDFDocument({
    size,
    margin: MARGIN,
    bufferPages: true,
    info: { Title: document.name, Producer: 'Hard Pedal', Creator: 'Hard Pedal' },
  });
  const parts: Buffer[] = [];
  const whole = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (part: Buffer) => parts.push(part));
    pdf.on('end', () => resolve(Buffer.concat(parts)));
    pdf.on('error', reject);
  });
  const [regular, bold] = FONT_FILES();
  pdf.registerFont('sans', regular!).registerFont('bold', bold!);
  const sheet = new Sheet(pdf, pictures);
  document.blocks.forEach((block, i) => sheet.set(block, document.blocks[i + 1]));
  const { start, count } = pdf.bufferedPageRange();
  for (let i = 0; i < count; i += 1) {
    pdf.switchToPage(start + i);
    const foot = pdf.page.height - MARGIN + 14;
    // The foot stands in the margin, where text would otherwise begin a new page.
    pdf.page.margins.bottom = 0;
    pdf.font('sans').fontSize(SMALL).fillColor(FAINT);
    pdf.text(document.name, MARGIN, foot, { lineBreak: false });
    pdf.text(`${i + 1} of ${count}`, MARGIN, foot, {
      width: pdf.page.width - 2 * MARGIN,
      align: 'right',
      lineBreak: false,
    });
  }
  pdf.end();
  return whole;
}

class Sheet {
  constructor(
    private readonly pdf: PDFKit.PDFDocument,
    private readonly pictures: ReadonlyMap<string, Buffer>,
  ) {}

  private get width(): number {
    return this.pdf.page.width - 2 * MARGIN;
  }

  private get bottom(): number {
    return this.pdf.page.height - MARGIN;
  }

  private text(words: string, { bold = false, size = BODY, color = INK, indent = 0, gap = 3 } = {}): void {
    const { pdf } = this;
    pdf
      .font(bold ? 'bold' : 'sans')
      .fontSize(size)
      .fillColor(color);
    pdf.text(words, MARGIN + indent, pdf.y, { width: this.width - indent, paragraphGap: gap });
  }

  /** Goes to a new page where less than this much is left. */
  private need(height: number): void {
    if (this.pdf.y + height > this.bottom) this.pdf.addPage();
  }

  set(block: Block, next: Block | undefined): void {
    const { pdf } = this;
    switch (block.kind) {
      case 'letterhead':
        return this.letterhead(block.name, block.lines, block.logo);
      case 'title':
        return this.title(block.text, block.aside);
      case 'headline':
        pdf.moveDown(0.8);
        return this.text(block.text, { bold: true, size: 16 });
      case 'heading':
        this.need(HEADING_HEIGHT + this.opening(next));
        return this.heading(block.text);
      case 'lead':
        return this.text(block.text, { size: 11 });
      case 'paragraph':
        return this.text(block.text, { bold: block.strong });
      case 'list':
        block.items.forEach(({ lead, text }, i) => this.item(block.numbered ? `${i + 1}.` : '•', lead, text));
        return;
      case 'photos':
        return this.photos(block.photos);
      case 'boxes':
        block.items.forEach((text) => this.box(text));
        return;
      case 'facts':
        block.facts.forEach(([name, value]) => this.fact(name, value));
        return;
      case 'table':
        return this.table(block.columns, block.widths, block.rows);
      case 'chart':
        return this.chart(block.svg, block.caption);
      case 'page-break':
        pdf.addPage();
    }
  }

  /** Height of what a block begins with and cannot part with: it stands on one page, and its heading over it. */
  private opening(block: Block | undefined): number {
    switch (block?.kind) {
      case 'photos':
        return PHOTO_ROW;
      case 'boxes':
        return this.boxHeight(block.items[0] ?? '');
      case 'facts':
        return this.factHeight(block.facts[0]?.[1] ?? '');
      case 'chart':
        return this.chartWidth * CHART.shape + CHART.caption;
      case 'table': {
        const { across } = this.columnsOf(block.widths);
        return TABLE_HEAD + this.rowHeight(block.rows[0] ?? [], across);
      }
      default:
        return SOME_LINES;
    }
  }

  private letterhead(name: string, lines: readonly string[], logo: string | null): void {
    const { pdf } = this;
    const top = pdf.y;
    const picture = logo ? this.pictures.get(logo) : undefined;
    if (picture) pdf.image(picture, MARGIN, top, { fit: [LOGO.width, LOGO.height] });
    pdf.y = top;
    const indent = picture ? LOGO.width + 12 : 0;
    this.text(name, { bold: true, size: 12, indent });
    this.text(lines.join(' · '), { size: 10, indent });
    pdf.moveDown(0.8);
    if (picture) pdf.y = Math.max(pdf.y, top + LOGO.height + 8);
  }

  /** Pictures in rows, each over what it shows. */
  private photos(photos: readonly Photo[]): void {
    const { pdf } = this;
    const across = this.width / PHOTOS_ACROSS;
    for (let i = 0; i < photos.length; i += PHOTOS_ACROSS) {
      this.need(PHOTO_ROW);
      const top = pdf.y + 4;
      photos.slice(i, i + PHOTOS_ACROSS).forEach(({ sha256, caption }, k) => {
        const left = MARGIN + k * across;
        const picture = this.pictures.get(sha256);
        if (picture) pdf.image(picture, left, top, { fit: [across - 8, PHOTO_HEIGHT] });
        pdf
          .font('sans')
          .fontSize(SMALL)
          .fillColor(FAINT)
          .text(picture ? caption : `${caption} (the picture is missing)`, left, top + PHOTO_HEIGHT + 2, {
            width: across - 8,
            height: 2 * SMALL + 4,
            ellipsis: true,
          });
      });
      pdf.y = top + PHOTO_HEIGHT + 2 * SMALL + 6;
      pdf.x = MARGIN;
    }
  }

  private title(text: string, aside: readonly string[]): void {
    const { pdf } = this;
    const top = pdf.y;
    pdf
      .font('bold')
      .fontSize(18)
      .fillColor(INK)
      .text(text, MARGIN, top, { width: this.width * 0.65 });
    const below = pdf.y;
    pdf.fontSize(10).text(aside.join('\n'), MARGIN, top, { width: this.width, align: 'right' });
    pdf.y = Math.max(below, pdf.y) + 3;
    pdf
      .moveTo(MARGIN, pdf.y)
      .lineTo(MARGIN + this.width, pdf.y)
      .lineWidth(2)
      .strokeColor(INK)
      .stroke();
    pdf.y += 8;
  }

  private heading(text: string): void {
    const { pdf } = this;
    pdf.moveDown(0.9);
    this.text(text, { bold: true, size: 11.5, gap: 1 });
    pdf
      .moveTo(MARGIN, pdf.y)
      .lineTo(MARGIN + this.width, pdf.y)
      .lineWidth(0.6)
      .strokeColor(RULE)
      .stroke();
    pdf.y += 4;
  }

  private item(mark: string, lead: string | undefined, text: string): void {
    const { pdf } = this;
    this.need(14);
    const top = pdf.y;
    pdf
      .font('sans')
      .fontSize(BODY)
      .fillColor(INK)
      .text(mark, MARGIN + 4, top, { lineBreak: false });
    pdf.x = MARGIN + 20;
    pdf.y = top;
    const options = { width: this.width - 20, paragraphGap: 2 };
    if (lead) pdf.font('bold').text(`${lead} `, MARGIN + 20, top, { ...options, continued: text !== '' });
    if (!lead) pdf.text(text, MARGIN + 20, top, options);
    else if (text !== '') pdf.font('sans').text(text, options);
  }

  private boxHeight(text: string): number {
    this.pdf.font('sans').fontSize(BODY);
    return this.pdf.heightOfString(text, { width: this.width - BOX_INDENT }) + 4;
  }

  private box(text: string): void {
    const { pdf } = this;
    this.need(this.boxHeight(text));
    const top = pdf.y;
    pdf
      .rect(MARGIN + 2, top + 1, 10, 10)
      .lineWidth(1)
      .strokeColor(INK)
      .stroke();
    const width = this.width - BOX_INDENT;
    pdf
      .font('sans')
      .fontSize(BODY)
      .fillColor(INK)
      .text(text, MARGIN + BOX_INDENT, top, { width, paragraphGap: 4 });
  }

  /** One that is long may go on on the next page. */
  private factHeight(value: string): number {
    this.pdf.font('sans').fontSize(BODY);
    return Math.min(200, this.pdf.heightOfString(value, { width: this.width - FACT_INDENT }));
  }

  private fact(name: string, value: string): void {
    const { pdf } = this;
    this.need(this.factHeight(value));
    const top = pdf.y;
    pdf.font('sans').fontSize(BODY);
    pdf.fillColor(FAINT).text(name, MARGIN, top, { width: FACT_INDENT - 8 });
    const below = pdf.y;
    pdf.fillColor(INK).text(value, MARGIN + FACT_INDENT, top, { width: this.width - FACT_INDENT });
    pdf.y = Math.max(below, pdf.y) + 1;
  }

  private get chartWidth(): number {
    return Math.min(this.width, CHART.most);
  }

  private chart(svg: string, caption: string): void {
    const { pdf } = this;
    const width = this.chartWidth;
    const height = width * CHART.shape;
    this.need(height + CHART.caption);
    svgToPdf(pdf, plainColours(svg), MARGIN, pdf.y, { width, height, fontCallback: () => 'sans' });
    pdf.y += height + 4;
    this.text(caption, { size: SMALL, color: FAINT });
  }

  /** Where each column begins, and how wide its words are set. */
  private columnsOf(widths: readonly number[]): { readonly edges: number[]; readonly across: number[] } {
    const whole = widths.reduce((sum, width) => sum + width, 0);
    const edges = widths.map(
      (_, i) => MARGIN + (this.width * widths.slice(0, i).reduce((s, w) => s + w, 0)) / whole,
    );
    return { edges, across: widths.map((width) => (this.width * width) / whole - 6) };
  }

  private rowHeight(row: readonly Cell[], across: readonly number[]): number {
    return Math.max(0, ...row.map((one, i) => this.cellHeight(one, across[i]!)));
  }

  private table(
    columns: readonly string[],
    widths: readonly number[],
    rows: readonly (readonly Cell[])[],
  ): void {
    const { pdf } = this;
    const { edges, across } = this.columnsOf(widths);
    const head = () => {
      const top = pdf.y;
      pdf
        .font('bold')
        .fontSize(SMALL + 0.5)
        .fillColor(INK);
      columns.forEach((name, i) => pdf.text(name, edges[i]!, top, { width: across[i]! }));
      pdf.y = top + TABLE_HEAD - 4;
      this.ruleBelow();
    };
    this.need(TABLE_HEAD + this.rowHeight(rows[0] ?? [], across));
    head();
    for (const row of rows) {
      const height = this.rowHeight(row, across);
      if (pdf.y + height > this.bottom) {
        pdf.addPage();
        head();
      }
      const top = pdf.y;
      row.forEach((one, i) => this.cell(one, edges[i]!, top, across[i]!));
      pdf.y = top + height + 2;
      this.ruleBelow();
    }
    pdf.y += 4;
  }

  private ruleBelow(): void {
    const { pdf } = this;
    pdf
      .moveTo(MARGIN, pdf.y)
      .lineTo(MARGIN + this.width, pdf.y)
      .lineWidth(0.4)
      .strokeColor(RULE)
      .stroke();
    pdf.y += 2;
  }

  /** The type that a cell is set in, measured and drawn. */
  private inCell({ verdict, strong }: Cell): PDFKit.PDFDocument {
    return this.pdf.font(strong || verdict === 'fails' ? 'bold' : 'sans').fontSize(BODY - 0.5);
  }

  private cellHeight(cell: Cell, width: number): number {
    const pdf = this.inCell(cell);
    const { text, small = [] } = cell;
    const main = text === '' ? 0 : pdf.heightOfString(text, { width });
    pdf.font('sans').fontSize(SMALL - 0.5);
    return main + small.reduce((sum, line) => sum + pdf.heightOfString(line, { width }), 0);
  }

  private cell(cell: Cell, x: number, top: number, width: number): void {
    const { pdf } = this;
    const { text, small = [], struck } = cell;
    pdf.y = top;
    if (text !== '') {
      this.inCell(cell).fillColor(struck ? FAINT : INK);
      pdf.text(text, x, top, { width, strike: struck ?? false });
    }
    pdf
      .font('sans')
      .fontSize(SMALL - 0.5)
      .fillColor(FAINT);
    for (const line of small) pdf.text(line, x, pdf.y, { width });
  }
}
