import iconv from 'iconv-lite';
import type { Encoding } from './encodings';
import { guessEncoding } from './guess-encoding';

/** A text read from bytes, and how. */
export interface DecodedText {
  text: string;
  encoding: string;
  /** Whether nothing else is likely; where not, somebody should look at the names. */
  sure: boolean;
}

const MARKS: readonly [encoding: string, bytes: readonly number[]][] = [
  ['utf-8', [0xef, 0xbb, 0xbf]],
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
];
const LINE_FEED = 0x0a;
/** The bytes by which an encoding is guessed. */
const LOOKED_AT = 20_000;

/**
 * Reads bytes as text: in the encoding that is given, or by their byte order mark, as UTF-8 where they are, and otherwise
 * in what they most likely are. Files that were put together of others hold both UTF-8 and Windows-1252, line by line.
 */
export function decodeText(bytes: Uint8Array, encoding?: Encoding): DecodedText {
  if (encoding) return { text: iconv.decode(bytes, encoding), encoding, sure: true };
  for (const [marked, mark] of MARKS)
    if (mark.every((byte, index) => bytes[index] === byte))
      return { text: iconv.decode(bytes, marked), encoding: marked, sure: true };
  const wide = withoutMark(bytes);
  if (wide) return { text: iconv.decode(bytes, wide), encoding: wide, sure: true };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8', sure: true };
  } catch {
    return decodeLines(bytes) ?? guessed(bytes);
  }
}

/** Every second byte of Latin letters in UTF-16 is nothing. */
function withoutMark(bytes: Uint8Array): Encoding | null {
  if (bytes.length < 4) return null;
  if (bytes[1] === 0 && bytes[3] === 0) return 'utf-16le';
  return bytes[0] === 0 && bytes[2] === 0 ? 'utf-16be' : null;
}

/** Reads line by line where some lines are UTF-8 with more than ASCII, and others are not. */
function decodeLines(bytes: Uint8Array): DecodedText | null {
  const utf8 = new TextDecoder('utf-8', { fatal: true });
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
      lines.push(iconv.decode(line, 'windows-1252'));
    }
    from = to;
  }
  return mixed ? { text: lines.join(''), encoding: 'utf-8, some lines windows-1252', sure: false } : null;
}

function guessed(bytes: Uint8Array): DecodedText {
  const { encoding, sure } = guessEncoding(told(bytes));
  return { text: iconv.decode(bytes, encoding), encoding, sure };
}

/** The lines that tell: those with more than ASCII. */
function told(bytes: Uint8Array): Uint8Array {
  const telling: number[] = [];
  for (let from = 0; from < bytes.length && telling.length < LOOKED_AT;) {
    const feed = bytes.indexOf(LINE_FEED, from);
    const to = feed < 0 ? bytes.length : feed + 1;
    const line = bytes.subarray(from, Math.min(to, from + LOOKED_AT));
    if (line.some((byte) => byte > 0x7f)) telling.push(...line.subarray(0, 2_000));
    from = to;
  }
  return Uint8Array.from(telling);
}
