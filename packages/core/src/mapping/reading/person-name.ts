/** A person's name in its parts; each is `''` where the name has none. */
export interface PersonName {
  title: string;
  given: string;
  family: string;
  suffix: string;
}

const TITLES = wordSet(
  'mr mrs ms miss mx dr prof professor sir dame lord lady rev reverend hon capt captain',
  'herr frau dipl.-ing dipl ing mag dhr mevr mw mevrouw drs ir',
  'm mme mlle monsieur madame maître me señor señora señorita sr. sra srta don doña',
  'sig signor signora dott dottoressa avv senhor senhora dra',
);
const SUFFIXES = wordSet('jr sr ii iii iv phd dphil md esq obe mbe cbe kc qc ba bsc ma msc mba llb llm frs frcs cpa');
/** Words that belong to the family name after them. */
const PARTICLES = wordSet(
  'van von vom zu zum zur de der den del della dello dos das do da di du des la le lo ten ter te',
  "af av al el bin ibn ben bint san santa st y e d'",
);
/** Words that are one given name with the word after them. */
const COMPOUNDS = wordSet('abd abdul abdel abdal abu umm');
const PAIRED_SURNAMES = new Set([
  '欧阳',
  '歐陽',
  '司马',
  '司馬',
  '诸葛',
  '諸葛',
  '上官',
  '夏侯',
  '东方',
  '東方',
  '皇甫',
  '尉迟',
  '남궁',
  '황보',
  '선우',
  '제갈',
  '독고',
]);

const CHINESE = /^\p{Script=Han}{2,4}$/u;
const KOREAN = /^\p{Script=Hangul}{2,4}$/u;
/** Written family name first, with a space between. */
const FAMILY_FIRST =
  /^[\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}ー々]+(\s[\p{Script=Han}\p{Script=Hangul}\p{Script=Hiragana}\p{Script=Katakana}ー々]+)+$/u;

/**
 * Takes a person's name apart, as it is written in several cultures: `Dr. Ada van der Meer, PhD`, `Weir, Ada`,
 * `WEIR Ada`, `José Ortega y Gasset`, `王小明`, `山田 太郎`. A name of one word is a given name.
 *
 * @param familyNames How many words the family name has where nothing else tells; 2 where people bear both parents' names.
 */
export function splitPersonName(text: string, familyNames: 1 | 2 = 1): PersonName {
  const clean = text.replace(/[\s\u00a0]+/g, ' ').trim();
  const none = { title: '', given: '', family: '', suffix: '' };
  if (clean === '') return none;
  const familyFirst = familyFirstName(clean);
  if (familyFirst) return { ...none, ...familyFirst };

  const pieces = clean.split(/\s*,\s*/).filter(Boolean);
  const after = pieces.slice(1).filter((piece) => !isSuffix(piece));
  const suffixes = pieces.slice(1).filter(isSuffix);
  const words = (after.length ? after.join(' ') : pieces[0]!).split(' ');
  const titles: string[] = [];
  while (words.length > 1 && isTitle(words[0]!)) titles.push(words.shift()!);
  while (words.length > 1 && isSuffix(words[words.length - 1]!)) suffixes.unshift(words.pop()!);
  const title = titles.join(' ');
  const suffix = suffixes.join(', ');
  if (after.length) return { title, given: words.join(' '), family: pieces[0]!, suffix };

  const begin = familyBegins(words, familyNames);
  const shouted = words.length > 1 && isShouted(words[0]!) && words.slice(1).every((word) => !isShouted(word));
  return shouted
    ? { title, given: words.slice(1).join(' '), family: words[0]!, suffix }
    : { title, given: words.slice(0, begin).join(' '), family: words.slice(begin).join(' '), suffix };
}

function familyFirstName(name: string): Pick<PersonName, 'given' | 'family'> | null {
  if (FAMILY_FIRST.test(name)) {
    const [family, ...given] = name.split(' ');
    return { family: family!, given: given.join(' ') };
  }
  if (!CHINESE.test(name) && !KOREAN.test(name)) return null;
  const characters = [...name];
  const long = characters.length > 2 && PAIRED_SURNAMES.has(characters.slice(0, 2).join('')) ? 2 : 1;
  return { family: characters.slice(0, long).join(''), given: characters.slice(long).join('') };
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
  return word.toLowerCase().replace(/\.+$/, '');
}

function wordSet(...lists: string[]): ReadonlySet<string> {
  return new Set(lists.flatMap((list) => list.split(' ')));
}
