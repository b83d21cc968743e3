import { analyse } from 'chardet';
import iconv from 'iconv-lite';
import type { Encoding } from './encodings';

/** What bytes that are no Unicode may be; of two that fit alike the first is meant. */
const CANDIDATES: readonly Encoding[] = [
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'shift_jis',
  'gb18030',
  'euc-kr',
  'euc-jp',
  'big5',
  'windows-1253',
  'windows-1254',
  'windows-1255',
  'windows-1256',
  'koi8-r',
  'iso-8859-2',
  'iso-8859-15',
];
/** What a detector by frequencies calls otherwise, or of which a wider one is meant. */
const MEANT: Readonly<Record<string, Encoding>> = {
  'iso-8859-1': 'windows-1252',
  'iso-8859-5': 'windows-1251',
  'iso-8859-6': 'windows-1256',
  'iso-8859-7': 'windows-1253',
  'iso-8859-8': 'windows-1255',
  'iso-8859-9': 'windows-1254',
};
/** By how much the best must be better than the next to be sure. */
const CLEARLY = 0.35;

/**
 * What bytes that are no UTF-8 are most likely in: what decodes to words as people write them, and, among such, what a
 * detector by the frequency of letters says.
 *
 * @param bytes Those of the lines that have more than ASCII.
 */
export function guessEncoding(bytes: Uint8Array): { encoding: Encoding; sure: boolean } {
  const frequent = new Map<string, number>();
  for (const { name, confidence } of analyse(bytes)) {
    const encoding = MEANT[name.toLowerCase()] ?? name.toLowerCase();
    frequent.set(encoding, Math.max(frequent.get(encoding) ?? 0, confidence / 100));
  }
  const scored = CANDIDATES.map((encoding, place) => ({
    encoding,
    score: likelyWords(iconv.decode(bytes, encoding)) + 0.5 * (frequent.get(encoding) ?? 0) - place * 0.01,
  })).toSorted((a, b) => b.score - a.score);
  const [best, next] = scored as [(typeof scored)[0], (typeof scored)[0]];
  return { encoding: best.encoding, sure: best.score - next.score >= CLEARLY };
}

/** How much a text looks like words, from far below 0 to 1: for each character that is not ASCII. */
function likelyWords(text: string): number {
  let [good, bad, all] = [0, 0, 0];
  const characters = [...text];
  characters.forEach((character, index) => {
    if (character < '\x80') return;
    all += 1;
    const [before = ' ', after = ' '] = [characters[index - 1], characters[index + 1]];
    if (/[\ufffd\p{Cc}\p{Co}\p{Cn}]/u.test(character)) bad += 5;
    else if (!LETTER.test(character))
      bad += LETTER.test(before) && LETTER.test(after) ? 2 : USUAL.test(character) ? -0.5 : 0.5;
    else if (/\p{Lu}/u.test(character) && /\p{Ll}/u.test(before)) bad += 2;
    else if (LETTER.test(before) && scriptOf(before) !== scriptOf(character)) bad += 1;
    else good += HALF_WIDTH.test(character) ? 0.2 : 1;
  });
  return all === 0 ? 0 : (good - bad) / all;
}

const LETTER = /[\p{L}\p{M}]/u;
/** What stands beside words in many texts. */
const USUAL = /[€£–—‘’“”…«»¿¡°§、。「」・，：（）]/u;
const HALF_WIDTH = /[\uff61-\uff9f]/u;

function scriptOf(character: string): number {
  return SCRIPTS.findIndex((script) => script.test(character));
}

/** Japanese writes three scripts in one word. */
const SCRIPTS = [
  /\p{Script=Latin}/u,
  /\p{Script=Cyrillic}/u,
  /\p{Script=Greek}/u,
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}ー々]/u,
  /\p{Script=Hangul}/u,
  /\p{Script=Hebrew}/u,
  /\p{Script=Arabic}/u,
];
