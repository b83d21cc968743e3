import { defineFinisher, NO_PARAMETERS } from './finisher';

export const collapse = defineFinisher({
  name: 'collapse',
  label: 'collapse spaces',
  description: 'Turns every run of white space, line breaks too, into one space.',
  parameters: NO_PARAMETERS,
  example: { before: 'Fennwick \n  Academy', after: 'Fennwick Academy' },
  finish: (text) => ({ text: text.replace(/\s+/g, ' ') }),
});
