const LAST_ASCII = 0x7f;
/** A letter of UTF-8 has two bytes at the least, and is written as \uXXXX or as two of them. */
const LONGEST = 6;

/** JSON in UTF-8 with every letter beyond ASCII written as JSON may write it: `é` as `\u00e9`. It says the same. */
export function asciiJson(json: Uint8Array): Buffer {
  const beyond = json.reduce((count, byte) => count + Number(byte > LAST_ASCII), 0);
  if (beyond === 0) return Buffer.from(json.buffer, json.byteOffset, json.byteLength);
  const out = Buffer.alloc(json.length + beyond * (LONGEST - 1));
  const decoder = new TextDecoder();
  let length = 0;
  for (let from = 0; from < json.length;) {
    let to = from;
    const isBeyond = json[from]! > LAST_ASCII;
    while (to < json.length && json[to]! > LAST_ASCII === isBeyond) to += 1;
    const run = json.subarray(from, to);
    if (isBeyond) length += out.write(escaped(decoder.decode(run)), length, 'latin1');
    else {
      out.set(run, length);
      length += run.length;
    }
    from = to;
  }
  return out.subarray(0, length);
}

const escaped = (text: string) =>
  Array.from(
    { length: text.length },
    (_, i) => `\\u${text.charCodeAt(i).toString(16).padStart(4, '0')}`,
  ).join('');
