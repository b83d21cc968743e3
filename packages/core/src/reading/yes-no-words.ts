import { trimWhere } from '../text';

/** Words for yes and no in the languages of forms, and what check boxes send. */
const YES = wordSet(
  'yes y true t 1 on x ok checked agree agreed accepted ja j oui si sí sì sim tak kyllä kylla vrai wahr verdadero',
);
const NO = wordSet(
  'no n false f 0 off none unchecked declined refused nee nein non não nao nej nei nie ei faux falsch falso',
);

/** Whether a text says yes or no; `null` where it says neither. */
export function yesOrNo(text: string): boolean | null {
  const word = trimWhere(text.trim().toLowerCase(), (character) => character === '.' || character === '!', 'end');
  if (YES.has(word)) return true;
  return NO.has(word) ? false : null;
}

function wordSet(words: string): ReadonlySet<string> {
  return new Set(words.split(' '));
}
