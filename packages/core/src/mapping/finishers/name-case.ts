import { defineFinisher, NO_PARAMETERS } from './finisher';

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
    'Writes a person’s name that came in one case (ADA, ada) with capitals; a name in mixed case is left as its owner typed it.',
  parameters: NO_PARAMETERS,
  example: { before: 'JOOST VAN DER MEER', after: 'Joost van der Meer' },
  finish(text) {
    const oneCase = text === text.toLowerCase() || text === text.toUpperCase();
    return { text: oneCase ? withCapitals(text) : text };
  },
});

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
