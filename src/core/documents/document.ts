import type { Result } from '../contract/result';

/** A cell of a table: words, with smaller words under them, or a verdict. */
export interface Cell {
  readonly text: string;
  readonly small?: readonly string[];
  readonly verdict?: Result['verdict'];
  /** Said with weight: a gauge past its date, a thing not met. */
  readonly strong?: boolean;
  readonly struck?: boolean;
}

/** A picture as kept, by its seal. */
export interface Photo {
  readonly sha256: string;
  readonly caption: string;
  readonly width: number;
  readonly height: number;
}

/** A piece of a printed document. The same pieces make the page on the screen and the PDF. */
export type Block =
  | { kind: 'letterhead'; name: string; lines: readonly string[]; logo: string | null }
  | { kind: 'title'; text: string; aside: readonly string[] }
  | { kind: 'headline'; text: string }
  | { kind: 'heading'; text: string }
  | { kind: 'lead'; text: string }
  | { kind: 'paragraph'; text: string; strong?: boolean }
  | { kind: 'list'; items: readonly { readonly lead?: string; readonly text: string }[]; numbered?: boolean }
  | { kind: 'facts'; facts: readonly (readonly [name: string, value: string])[] }
  | {
      kind: 'table';
      name: string;
      columns: readonly string[];
      widths: readonly number[];
      rows: readonly (readonly Cell[])[];
    }
  | { kind: 'chart'; svg: string; label: string; caption: string }
  /** Pictures by their seals; few stand in one row. */
  | { kind: 'photos'; photos: readonly Photo[]; few?: true }
  | { kind: 'boxes'; items: readonly string[] }
  | { kind: 'page-break' };

/** A document to be read, printed or sent: its name for a file, and its pieces in order. */
export interface Document {
  readonly name: string;
  readonly blocks: readonly Block[];
}

export const cell = (text: string, more: Omit<Cell, 'text'> = {}): Cell => ({ text, ...more });
