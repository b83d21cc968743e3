import { trimWhere } from '../text';
import { isFamilyFirst, isPatronymic } from './family-first';
import { hanName } from './han-name';

/** A person's name in its parts; each is `''` where the name has none. */
export interface PersonName {
  title: string;
  given: string;
  family: string;
  suffix: string;
}

const TITLES = wordSet(
  'mr mrs ms miss mx dr prof professor sir dame lord lady rev reverend hon capt captain',
  'herr frau dipl.-ing dr.-ing priv.-doz pd dipl ing mag dhr mevr mw mevrouw drs ir',
  'm mme mlle monsieur madame maître me señor señora señorita sr. sra srta don doña',
  'sig signor signora dott dottoressa avv senhor senhora dra',
);
const SUFFIXES = wordSet('jr sr ii iii iv phd dphil md esq obe mbe cbe kc qc ba bsc ma msc mba llb llm frs frcs cpa');
/** Words that belong to the family name after them. */
const PARTICLES = wordSet(
  'van von vom zu zum zur de der den del della dello dos das do da di du des la le lo ten ter te',
  'binti binte آل بن بنت ابن',
  "af av al el bin ibn ben bint san santa st y e d'",
);
/** Words that are one given name with the word after them. */
const COMPOUNDS = wordSet('abd abdul abdel abdal abu umm عبد ابو أبو أم');
/** They say more of the title before them, and are no titles by themselves: `Dr. med.`, `Dr. rer. nat.` */
const AFTER_TITLES = wordSet('med dent vet jur rer nat pol oec phil theol habil h.c hc mult');
const JOINING = wordSet('and & und et y e en og och');
/** How somebody wishes to be spoken of: `(they/them)`. */
const PRONOUNS = /[([][^()[\]/]{1,20}\/[^()[\]]{1,30}[)\]]/g;

/**
 * Takes a person's name apart, as it is written in several cultures: `Dr. Ada van der Meer, PhD`, `Weir, Ada`,
 * `WEIR Ada`, `José Ortega y Gasset`, `王小明`, `山田 太郎`. A name of one word is a given name.
 *
 * @param familyNames How many words the family name has where nothing else tells; 2 where people bear both parents' names.
 */
export function splitPersonName(text: string, familyNames: 1 | 2 = 1): PersonName {
  const pronouns = text.match(PRONOUNS) ?? [];
  const clean = text.replace(PRONOUNS, ' ').replace(/\s+/g, ' ').trim();
  const none = { title: '', given: '', family: '', suffix: '' };
  if (clean === '') return { ...none, suffix: pronouns.join(' ') };
  const han = hanName(clean);
  if (han) return { ...none, ...han, suffix: pronouns.join(' ') };

  const pieces = clean
    .split(',')
    .map((piece) => piece.trim())
    .filter(Boolean);
  const after = pieces.slice(1).filter((piece) => !isSuffix(piece));
  const suffixes = pieces.slice(1).filter(isSuffix);
  const words = (after.length ? after.join(' ') : pieces[0]!).split(' ');
  const titles = takeTitles(words);
  while (words.length > 1 && isSuffix(words[words.length - 1]!)) suffixes.unshift(words.pop()!);
  const title = titles.join(' ');
  const suffix = [...suffixes, ...pronouns].join(', ');
  if (after.length) return { title, given: words.join(' '), family: pieces[0]!, suffix };
  const parts = (begin: number, end = words.length) => ({
    title,
    given: [...words.slice(0, begin), ...words.slice(end)].join(' '),
    family: words.slice(begin, end).join(' '),
    suffix,
  });
  // `Mr and Mrs Weir`: of one word after titles of several people it is the family's.
  if (words.length === 1 && titles.some((word) => JOINING.has(word.toLowerCase()))) return parts(0);
  const shouted = words.findIndex((word) => !isShouted(word));
  if (shouted > 0 && !words.slice(shouted).some(isShouted)) return parts(0, shouted);
  if (isFamilyFirst(words)) return parts(0, 1);
  if (words.length === 3 && isPatronymic(words[1]!)) return parts(2);
  return parts(familyBegins(words, familyNames));
}

/** Takes the titles from the beginning of the words, and what joins or goes on from them. */
function takeTitles(words: string[]): string[] {
  const titles: string[] = [];
  while (words.length > 1) {
    const [word, next] = words as [string, string];
    const goesOn =
      titles.length > 0 && (AFTER_TITLES.has(plain(word)) || (JOINING.has(word.toLowerCase()) && isTitle(next)));
    if (!isTitle(word) && !goesOn) break;
    titles.push(words.shift()!);
  }
  return titles;
}

/** The place of the first word that belongs to the family name. */
function familyBegins(words: readonly string[], familyNames: number): number {
  if (words.length === 1) return 1;
  let begin = Math.max(1, words.length - familyNames);
  // `Ortega y Gasset`: the word before the joining one belongs to it too.
  const joining = words.findIndex((word, index) => index > 1 && index < words.length - 1 && /^(y|e)$/i.test(word));
  if (joining > 1) begin = Math.min(begin, joining - 1);
  const particle = words.findIndex(
    (word, index) =>
      index > 0 && index < words.length - 1 && isParticle(word) && !COMPOUNDS.has(plain(words[index - 1]!)),
  );
  if (particle > 0) begin = Math.min(begin, particle);
  // `Abd al-Rahman Khalid`: two words that are one given name stay together.
  return COMPOUNDS.has(plain(words[0]!)) && words.length > 2 ? Math.max(begin, 2) : begin;
}

function isTitle(word: string): boolean {
  return TITLES.has(word.toLowerCase()) || TITLES.has(plain(word));
}

function isSuffix(word: string): boolean {
  return SUFFIXES.has(word.toLowerCase().replace(/\./g, ''));
}

function isParticle(word: string): boolean {
  return PARTICLES.has(word.toLowerCase());
}

function isShouted(word: string): boolean {
  return /\p{Lu}{2}/u.test(word) && word === word.toUpperCase();
}

function plain(word: string): string {
  return trimWhere(word.toLowerCase(), (character) => character === '.', 'end');
}

function wordSet(...lists: string[]): ReadonlySet<string> {
  return new Set(lists.flatMap((list) => list.split(' ')));
}
