/** The text that replaces an e-mail address in a parameter. */
export const MASKED_ADDRESS = '(an e-mail address)';

const ENCODED = /%[0-9a-f]{2}/i;
/** The most times that a parameter is decoded again. */
const MOST_TIMES = 2;
const ADDRESS = /[^\s@&=,;<>"]{1,64}@[^\s@&=,;<>"]{1,255}/g;

/**
 * Reads a link parameter. Text that was percent-encoded more than once is decoded (RFC 3986, 2.1), and e-mail addresses are
 * masked.
 */
export function readParameter(text: string): { text: string; masked: boolean } {
  const plain = decoded(text);
  if (!plain.includes('@')) return { text: plain, masked: false };
  const masked = plain.replace(ADDRESS, MASKED_ADDRESS);
  return { text: masked, masked: masked !== plain };
}

function decoded(text: string): string {
  let plain = text;
  for (let times = 0; times < MOST_TIMES && ENCODED.test(plain); times += 1) {
    try {
      plain = decodeURIComponent(plain);
    } catch {
      // A percent sign that is meant as such.
      return plain;
    }
  }
  return plain;
}
