/** A text read from bytes, and how. */
export interface DecodedText {
  text: string;
  encoding: string;
}

const MARKS: readonly [encoding: string, bytes: readonly number[]][] = [
  ['utf-8', [0xef, 0xbb, 0xbf]],
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
];
const LINE_FEED = 0x0a;

/**
 * Reads bytes as text: by their byte order mark, as UTF-8 where they are, and line by line otherwise, since files that
 * were put together of others hold both UTF-8 and Windows-1252 (WHATWG Encoding).
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  for (const [encoding, mark] of MARKS)
    if (mark.every((byte, index) => bytes[index] === byte))
      return { text: new TextDecoder(encoding).decode(bytes), encoding };
  // Every second byte of Latin letters in UTF-16 is nothing.
  if (bytes.length > 3 && bytes[1] === 0 && bytes[3] === 0)
    return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'utf-16le' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
  } catch {
    return decodeLines(bytes);
  }
}

function decodeLines(bytes: Uint8Array): DecodedText {
  const utf8 = new TextDecoder('utf-8', { fatal: true });
  const western = new TextDecoder('windows-1252');
  const lines: string[] = [];
  let mixed = false;
  for (let from = 0; from < bytes.length;) {
    const feed = bytes.indexOf(LINE_FEED, from);
    const to = feed < 0 ? bytes.length : feed + 1;
    const line = bytes.subarray(from, to);
    try {
      const text = utf8.decode(line);
      mixed ||= /[^\0-\x7f]/.test(text);
      lines.push(text);
    } catch {
      lines.push(western.decode(line));
    }
    from = to;
  }
  return { text: lines.join(''), encoding: mixed ? 'utf-8, some lines windows-1252' : 'windows-1252' };
}
