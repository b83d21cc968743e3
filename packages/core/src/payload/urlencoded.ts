const [PERCENT, PLUS, SPACE] = [0x25, 0x2b, 0x20];
const WHOLE = new TextDecoder('utf-8', { ignoreBOM: true });

/**
 * The names and values of `application/x-www-form-urlencoded` text in their order, as the WHATWG URL standard reads them:
 * what is no percent-encoded byte stays, and bytes that are no UTF-8 become U+FFFD. Time grows with the length alone, also
 * where every character is a plus sign, at which `URLSearchParams` takes many times as long.
 */
export function urlencodedPairs(text: string): [string, string][] {
  const pairs: [string, string][] = [];
  for (let from = 0; from < text.length;) {
    const mark = text.indexOf('&', from);
    const to = mark < 0 ? text.length : mark;
    if (to > from) pairs.push(pairOf(text.slice(from, to)));
    from = to + 1;
  }
  return pairs;
}

function pairOf(text: string): [string, string] {
  const end = text.indexOf('=');
  return end < 0 ? [decoded(text), ''] : [decoded(text.slice(0, end)), decoded(text.slice(end + 1))];
}

function decoded(part: string): string {
  if (!part.includes('%') && !part.includes('+')) return part;
  const bytes = new TextEncoder().encode(part);
  let length = 0;
  for (let at = 0; at < bytes.length; at += 1) {
    const byte = bytes[at] === PERCENT ? byteOf(bytes[at + 1], bytes[at + 2]) : -1;
    bytes[length] = byte >= 0 ? byte : bytes[at] === PLUS ? SPACE : bytes[at]!;
    length += 1;
    if (byte >= 0) at += 2;
  }
  return WHOLE.decode(bytes.subarray(0, length));
}

/** The byte that two hexadecimal digits name; -1 where they are none. */
function byteOf(high: number | undefined, low: number | undefined): number {
  const [left, right] = [digit(high), digit(low)];
  return left < 0 || right < 0 ? -1 : left * 16 + right;
}

function digit(code: number | undefined): number {
  if (code === undefined) return -1;
  if (code >= 0x30 && code <= 0x39) return code - 0x30;
  const letter = code | 0x20;
  return letter >= 0x61 && letter <= 0x66 ? letter - 0x57 : -1;
}
