import { trimWhere } from '../../text';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const trim = defineFinisher({
  name: 'trim',
  label: 'trim',
  description: 'Removes white space at both ends, also the kinds that cannot be seen.',
  parameters: NO_PARAMETERS,
  example: { before: '  Ada Lovage\u00a0', after: 'Ada Lovage' },
  finish: (text) => ({ text: trimWhere(text, (character) => /[\s\u200b\u2060]/.test(character)) }),
});
