import { foldWords } from '../reading/fold-text';
import type { JsonObject } from '../json';
import { LIMITS } from '../limits';
import { answerText } from '../payload/answer-text';
import { payloadFields } from '../payload/fields';

/** One thing that is looked for: a word that stands there, or one that begins so. */
export interface SearchTerm {
  word: string;
  begins: boolean;
}

/** Scripts without spaces: each character is a word, so that a part of a name is found. */
const PIECE =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|[^\s\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]+/gu;
const NUMBER_LIKE = /^\+?[\d()./\s-]+$/;
/** People write a number with and without its country; its last digits are the same. */
const LAST_DIGITS = 8;
const ID_LIKE = /^[0-9a-f]{8}[0-9a-f-]{0,28}$/;
const LONGEST_WORD = 60;
const MOST_TERMS = 12;

/**
 * The words by which a submission is found: those of every answer, folded as names are compared; each address and the
 * last digits of each telephone number whole; and its id. At most `LIMITS.searchedWords`.
 */
export function submissionWords(id: string, payload: JsonObject | null): string[] {
  const words = new Set([idWord(id)]);
  if (payload)
    for (const { value } of payloadFields(payload)) {
      for (const word of wordsOf(answerText(value))) {
        if (words.size >= LIMITS.searchedWords.most) return [...words];
        words.add(word);
      }
    }
  return [...words];
}

/**
 * What somebody who types this looks for: any of the answered lists, and of a list all terms. The last word may be
 * unfinished; so may each other one. `[]` where nothing is typed.
 */
export function searchTerms(typed: string): SearchTerm[][] {
  const text = typed.slice(0, LIMITS.searchText.most).trim();
  const found: SearchTerm[][] = [];
  const words = termsOf(text);
  if (words.length) found.push(words);
  const digits = lastDigits(text);
  if (digits) found.push([{ word: digits, begins: false }]);
  const id = text.toLowerCase();
  if (ID_LIKE.test(id)) found.push([{ word: idWord(id), begins: true }]);
  return found;
}

function termsOf(text: string): SearchTerm[] {
  const terms = (text.match(PIECE) ?? []).flatMap((piece): SearchTerm[] => {
    const address = addressOf(piece);
    const words = address === null ? foldWords(piece) : [address];
    // A single letter begins too many words to tell anything.
    return words.map((word) => ({ word: word.slice(0, LONGEST_WORD), begins: word.length > 1 }));
  });
  const once = new Map(terms.map((term) => [term.word, term]));
  return [...once.values()].slice(0, MOST_TERMS);
}

function* wordsOf(text: string): Generator<string> {
  const digits = lastDigits(text);
  if (digits) yield digits;
  for (const [piece] of text.matchAll(PIECE)) {
    const address = addressOf(piece);
    if (address !== null) yield address.slice(0, LONGEST_WORD);
    for (const word of foldWords(piece)) yield word.slice(0, LONGEST_WORD);
  }
}

/** `Ada@Quillfern.example` as it is looked for whole; null for what is none, or only the end of one. */
function addressOf(piece: string): string | null {
  const at = piece.indexOf('@');
  if (at <= 0 || at === piece.length - 1) return null;
  return piece.toLowerCase().replace(/^[^\p{L}\p{N}]{1,3}|[^\p{L}\p{N}]{1,3}$/gu, '');
}

function lastDigits(text: string): string | null {
  if (text.length > 40 || !NUMBER_LIKE.test(text)) return null;
  const digits = text.replace(/\D/g, '');
  return digits.length < LAST_DIGITS ? null : `#${digits.slice(-LAST_DIGITS)}`;
}

const idWord = (id: string) => `=${id.replaceAll('-', '')}`;
