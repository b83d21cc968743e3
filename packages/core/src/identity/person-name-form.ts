import type { FieldValues } from '../diff/record';
import { splitPersonName } from '../reading/person-name';
import { remembered } from '../remembered';
import { consonants, foldWords, isVowelless } from '../reading/fold-text';

/** A person's name as it is compared: words without marks, in the order they are said, particles left out. */
export interface NameForm {
  given: readonly string[];
  family: readonly string[];
  /** Whether it was written without vowels, so that only its consonants can be compared. */
  vowelless: boolean;
}

const PARTICLES = new Set(
  'van von vom zu zum zur de der den del della dello dos das do da di du des la le lo ten ter te af av al el bin ibn ben bint'.split(
    ' ',
  ),
);

/**
 * The name that a contact's or lead's values tell, or `null`. The parts are taken as given where they are; a name that
 * stands in one field is taken apart.
 *
 * @example personNameForm({ full_name: 'Dr. Ada van der Meer-Smith' }) // { given: ['ada'], family: ['meer', 'smith'] }
 */
export function personNameForm(values: FieldValues): NameForm | null {
  const text = (key: string) => {
    const value = values[key];
    return typeof value === 'string' ? value.trim().replaceAll('\n', ' ') : '';
  };
  return formOf(`${text('first_name')}\n${text('last_name')}\n${text('full_name') || text('name')}`);
}

/** Of so many names the forms are remembered: whoever is looked for is compared with others of the name. */
const MOST_NAMES = 60_000;

/** The form of a given, a family and a whole name, a line each. */
const formOf = remembered((lines): NameForm | null => {
  const [first = '', last = '', whole = ''] = lines.split('\n');
  const name = first && last ? { given: withoutTitle(first), family: last } : splitPersonName(whole || first || last);
  // A name of one word that stands in the field of family names is one.
  const parts = !name.family && last && !first ? { given: '', family: name.given } : name;
  const form = { given: foldWords(parts.given), family: withoutParticles(foldWords(parts.family)) };
  if (!form.given.length && !form.family.length) return null;
  return { ...form, vowelless: isVowelless(first + last + whole) };
}, MOST_NAMES);

/** A title that stands in the field of given names is none. */
function withoutTitle(first: string): string {
  return first.includes(' ') ? splitPersonName(`${first} X`).given || first : first;
}

function withoutParticles(words: readonly string[]): readonly string[] {
  const rest = words.filter((word) => !PARTICLES.has(word));
  return rest.length ? rest : words;
}

/** The consonants of the words of a name, for comparing with one that was written without vowels. */
export function nameSkeleton(words: readonly string[]): string {
  return words.map(consonants).join('');
}
