/** Text of a picture at this length or more is taken out; what is shorter takes no memory to speak of. */
const LEAST_LETTERS = 4096;
const BEFORE = '"jpeg":"';
const QUOTE = 0x22;

/** Base64 as a job file has it: whole groups of four letters. */
const isBase64 = (text: string) => text.length % 4 === 0 && /^[A-Za-z0-9+/]*={0,2}$/.test(text);

/** A job file with its pictures beside it. */
export interface Apart {
  /** The JSON, with a short text in place of each picture: itself base64. */
  readonly json: Buffer;
  /** Each picture by that text. They lie where their text lay. */
  readonly pictures: ReadonlyMap<string, Buffer>;
}

/**
 * Takes the pictures out of the JSON of a job file. As text they are nine tenths of it, and reading JSON makes a second copy of every text.
 *
 * A quote within a text of JSON stands behind a stroke, so what is found is the name of a member, or the end of a name that no job file has.
 *
 * @param file the JSON; pictures are written over their own text, so that it is good for nothing afterwards
 */
export function picturesApart(file: Buffer): Apart {
  const pictures = new Map<string, Buffer>();
  const rest: Buffer[] = [];
  let from = 0;
  for (;;) {
    const found = file.indexOf(BEFORE, from);
    const start = found + BEFORE.length;
    const end = found < 0 ? -1 : file.indexOf(QUOTE, start);
    if (end < 0) break;
    const letters = end - start < LEAST_LETTERS ? '' : file.toString('latin1', start, end);
    if (letters === '' || !isBase64(letters)) {
      rest.push(file.subarray(from, end));
    } else {
      const name = Buffer.from(`picture ${pictures.size}`).toString('base64');
      rest.push(file.subarray(from, start), Buffer.from(name));
      pictures.set(name, file.subarray(start, start + file.write(letters, start, 'base64')));
    }
    from = end;
  }
  return { json: Buffer.concat([...rest, file.subarray(from)]), pictures };
}
