/** Bytes looked at to tell how a text is written. */
const LOOKED_AT = 65_536;
const LF = 10;
const CR = 13;

/** How the bytes of a log stand for text, where that is not UTF-8 with line feeds. */
interface Writing {
  readonly charset: 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';
  /** Lines end in a carriage return and nothing else. */
  readonly crAlone: boolean;
}

/** Finds out how a text is written from its first bytes. */
function writingOf(head: Uint8Array): Writing {
  const charset = charsetOf(head);
  const text = new TextDecoder(charset).decode(head);
  return { charset, crAlone: !text.includes('\n') && text.includes('\r') };
}

function charsetOf(head: Uint8Array): Writing['charset'] {
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le';
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be';
  // Digits and separators in sixteen bits: every second byte is nothing.
  const nothings = (from: number) =>
    Array.from({ length: Math.floor(head.length / 2) }, (_, i) => head[2 * i + from]).filter((b) => b === 0)
      .length;
  const [even, odd] = [nothings(0), nothings(1)];
  if (Math.max(even, odd) > 0.4 * (head.length / 2) && Math.min(even, odd) === 0)
    return odd > even ? 'utf-16le' : 'utf-16be';
  try {
    // The last character of the head may be cut.
    new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true });
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** The text of the beginning of a log, whatever it is written in. */
export function headText(head: Uint8Array): string {
  const { charset } = writingOf(head);
  return new TextDecoder(charset).decode(head);
}

/**
 * Turns the bytes of a log, piece by piece, into UTF-8 with line feeds. Most logs are that already: their bytes pass as
 * they are.
 */
export class PlainText {
  private decoder: TextDecoder | null = null;
  private crAlone = false;

  /** @param head the first bytes, to tell by; they are not taken in */
  constructor(head: Uint8Array) {
    const { charset, crAlone } = writingOf(head.subarray(0, LOOKED_AT));
    if (charset !== 'utf-8') this.decoder = new TextDecoder(charset);
    this.crAlone = crAlone;
  }

  /** The next bytes, made plain. */
  next(bytes: Uint8Array): Uint8Array {
    const plain = this.decoder
      ? new TextEncoder().encode(this.decoder.decode(bytes, { stream: true }))
      : bytes;
    return this.crAlone ? plain.map((byte) => (byte === CR ? LF : byte)) : plain;
  }
}
