import { trimWhere } from '../../text';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const wholeText = defineFinisher({
  name: 'whole-text',
  label: 'whole text',
  description:
    'Keeps a message whole, line by line: one kind of line break, no control characters, no blank ends; nothing is cut.',
  parameters: NO_PARAMETERS,
  example: { before: 'South bed.\r\nTwo bays.  \r\n\r\n', after: 'South bed.\nTwo bays.' },
  finish(text) {
    const lines = text.replace(/\r\n?|[\u2028\u2029]/g, '\n').split('\n');
    const clean = lines.map((line) => line.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g, '').trimEnd());
    return { text: trimWhere(clean.join('\n'), (character) => character === '\n') };
  },
});
