import { z } from '../../schema-library';
import { trimWhere } from '../../text';
import { defineFinisher } from './finisher';

export const shortenText = defineFinisher({
  name: 'shorten',
  label: 'shorten',
  description: 'Cuts a text after the last whole word that fits, with an ellipsis. The submission keeps all of it.',
  parameters: z.strictObject({ most: z.number().int().min(2).max(10_000).default(100).meta({ title: 'characters' }) }),
  example: { before: 'Two bays against the south wall', after: 'Two bays against…', with: { most: 20 } },
  finish(text, { most }) {
    const characters = [...text];
    if (characters.length <= most) return { text };
    const room = characters.slice(0, most - 1).join('');
    const whole = /\s/.test(characters[most - 1]!) ? room : withoutLastWord(room);
    return { text: `${(whole || room).trimEnd()}…` };
  },
});

/** Returns the text up to its last white space; all of it where there is none. */
function withoutLastWord(text: string): string {
  const rest = trimWhere(text, (character) => !/\s/.test(character), 'end');
  return rest === '' ? text : rest.trimEnd();
}
