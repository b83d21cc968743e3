import { defineFinisher, NO_PARAMETERS } from './finisher';

const FEWEST_SHOUTED = 4;
const NUMERAL = /^[IVX]+$/;
const PARTICLES = new Set([
  'van',
  'von',
  'de',
  'der',
  'den',
  'du',
  'da',
  'di',
  'del',
  'la',
  'le',
  'ten',
  'ter',
  'zu',
  'af',
  'av',
  'al',
  'bin',
  'y',
  'e',
]);

export const nameCase = defineFinisher({
  name: 'name-case',
  label: 'name case',
  description:
    'Writes what of a person’s name came in one case (ADA weir, Ada WEIR) with capitals; a name in mixed case is left as its owner typed it.',
  parameters: NO_PARAMETERS,
  example: { before: 'JOOST VAN DER MEER', after: 'Joost van der Meer' },
  finish(text) {
    const words = text.split(/\s+/);
    if (!words.some(isMixed)) return { text: withCapitals(text) };
    return { text: text.replace(/\p{L}+/gu, (word) => (isShouted(word) ? capitalised(word.toLowerCase()) : word)) };
  },
});

function isMixed(word: string): boolean {
  return word !== word.toLowerCase() && word !== word.toUpperCase();
}

/** Whether a word beside others in mixed case is in capitals that no initials, numeral or degree has. */
function isShouted(word: string): boolean {
  return (
    word.length >= FEWEST_SHOUTED && word === word.toUpperCase() && word !== word.toLowerCase() && !NUMERAL.test(word)
  );
}

function withCapitals(name: string): string {
  const words = name.toLowerCase().split(/(\s+)/);
  const last = words.length - 1;
  return words.map((word, index) => (index < last && PARTICLES.has(word) ? word : capitalised(word))).join('');
}

function capitalised(word: string): string {
  return word.replace(
    /(^|[-'’.])(mc|o['’])?(\p{L})/gu,
    (_, mark: string, prefix: string | undefined, letter: string) => {
      const start = prefix === undefined ? '' : prefix[0]!.toUpperCase() + prefix.slice(1);
      return `${mark}${start}${capital(letter)}`;
    },
  );
}

/** The capital of a letter. Some have none of their own, and become two (ß, ŉ, ᾀ): those stay as they are. */
function capital(letter: string): string {
  const upper = letter.toUpperCase();
  return [...upper].length === 1 ? upper : letter;
}
