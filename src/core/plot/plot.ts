/** An axis: its name with the unit, and the range it shows. */
export interface Axis {
  readonly title: string;
  readonly low: number;
  readonly high: number;
}

type Point = readonly [x: number, y: number];

/** Size of the picture, px. */
export interface PlotSize {
  readonly width: number;
  readonly height: number;
}
const ON_PAPER: PlotSize = { width: 640, height: 330 };
const LEFT = 58;
const RIGHT = 14;
const TOP = 12;
const BOTTOM = 42;
/** Colours as variables of the page, with what holds where there are none: on paper and in a file. */
const INK = 'var(--hp-line, #1E2426)';
const RULE = 'var(--mui-palette-divider, #CFC8B8)';
const BAND = 'var(--hp-band, #D5DCC8)';
const LINE = 'var(--hp-output, #96491F)';
const GROUND = 'var(--mui-palette-background-default, #FFFFFF)';

/** Round values at which an axis is marked, about `most` of them. */
export function ticks({ low, high }: Pick<Axis, 'low' | 'high'>, most = 8): number[] {
  const span = high - low;
  if (!(span > 0)) return [low];
  const rough = span / most;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough * (1 - 1e-9))!;
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  return Array.from({ length: last - first + 1 }, (_, i) => Number(((first + i) * step).toPrecision(12)));
}

const text = (value: string) =>
  value.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** A plain chart of lines, bands and points as SVG: the same picture on the page, in the PDF and as a file. */
export class Plot {
  private readonly parts: string[] = [];

  constructor(
    private readonly across: Axis,
    private readonly up: Axis,
    readonly size: PlotSize = ON_PAPER,
  ) {}

  /** Where a point lies in the picture, px. */
  place(x: number, y: number): readonly [number, number] {
    return [this.x(x), this.y(y)];
  }

  private x(value: number): number {
    return (
      LEFT +
      ((this.size.width - LEFT - RIGHT) * (value - this.across.low)) / (this.across.high - this.across.low)
    );
  }

  private y(value: number): number {
    return (
      TOP + (this.size.height - BOTTOM - TOP) * (1 - (value - this.up.low) / (this.up.high - this.up.low))
    );
  }

  private path(points: readonly Point[]): string {
    return points
      .map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${this.x(x).toFixed(1)} ${this.y(y).toFixed(1)}`)
      .join(' ');
  }

  band(low: readonly Point[], high: readonly Point[]): void {
    const back = [...low].reverse().map(([x, y]) => `L${this.x(x).toFixed(1)} ${this.y(y).toFixed(1)}`);
    this.parts.push(`<path d="${this.path(high)} ${back.join(' ')} Z" style="fill:${BAND}"/>`);
  }

  line(points: readonly Point[], { dashed = false } = {}): void {
    const dash = dashed ? ' stroke-dasharray="6 4"' : '';
    this.parts.push(
      `<path d="${this.path(points)}" fill="none" stroke-width="1.8"${dash} style="stroke:${LINE}"/>`,
    );
  }

  point(x: number, y: number, filled = true): void {
    this.parts.push(
      `<circle cx="${this.x(x).toFixed(1)}" cy="${this.y(y).toFixed(1)}" r="4.5" stroke-width="2" style="fill:${filled ? LINE : GROUND};stroke:${LINE}"/>`,
    );
  }

  /** Words above a point of a line: which one it is. */
  words(x: number, y: number, words: string): void {
    const at = this.x(x);
    const right = at > this.size.width / 2;
    this.parts.push(
      `<text x="${at.toFixed(1)}" y="${(this.y(y) - 7).toFixed(1)}" text-anchor="${right ? 'end' : 'start'}" font-size="12" style="fill:${INK}">${text(words)}</text>`,
    );
  }

  /** An upright line with its name. */
  mark(x: number, name: string): void {
    const at = this.x(x);
    const right = at > this.size.width / 2;
    this.parts.push(
      `<path d="M${at.toFixed(1)} ${TOP} V${this.size.height - BOTTOM}" stroke-width="1" stroke-dasharray="2 3" style="stroke:${INK}"/>`,
      `<text x="${(at + (right ? -5 : 5)).toFixed(1)}" y="${this.size.height - BOTTOM - 8}" text-anchor="${right ? 'end' : 'start'}" font-size="12" style="fill:${INK}">${text(name)}</text>`,
    );
  }

  /** @param label what the picture shows, for those who do not see it */
  svg(label: string): string {
    const grid = ticks(this.up).map((tick) => {
      const at = this.y(tick).toFixed(1);
      return `<path d="M${LEFT} ${at} H${this.size.width - RIGHT}" stroke-width="1" style="stroke:${RULE}"/><text x="${LEFT - 6}" y="${(this.y(tick) + 4).toFixed(1)}" text-anchor="end" font-size="12" style="fill:${INK}">${tick}</text>`;
    });
    const feet = ticks(this.across).map(
      (tick) =>
        `<text x="${this.x(tick).toFixed(1)}" y="${this.size.height - BOTTOM + 18}" text-anchor="middle" font-size="12" style="fill:${INK}">${tick}</text>`,
    );
    const middle = (this.size.height - BOTTOM + TOP) / 2;
    return [
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${this.size.width} ${this.size.height}" width="${this.size.width}" height="${this.size.height}" role="img" aria-label="${text(label)}" font-family="'Atkinson Hyperlegible Next', 'Atkinson Hyperlegible Next Variable', sans-serif">`,
      ...grid,
      ...feet,
      ...this.parts,
      `<text x="${(LEFT + this.size.width) / 2}" y="${this.size.height - 6}" text-anchor="middle" font-size="12.5" style="fill:${INK}">${text(this.across.title)}</text>`,
      `<text x="14" y="${middle}" text-anchor="middle" font-size="12.5" transform="rotate(-90 14 ${middle})" style="fill:${INK}">${text(this.up.title)}</text>`,
      '</svg>',
    ].join('');
  }
}

/** The picture with its colours written out, for programs that know no variables. */
export const plainColours = (svg: string): string => svg.replace(/var\(--[\w-]+, (#[0-9A-Fa-f]+)\)/g, '$1');
