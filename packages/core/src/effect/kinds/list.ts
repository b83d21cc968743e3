import { markEffect } from './mark';

/** Puts a contact in lists, and takes it out of lists. */
export const list = markEffect({
  do: 'list',
  field: 'lists',
  label: 'Lists',
  description: 'Adds the contact to lists and removes it from lists.',
  words: { add: 'joins', remove: 'leaves', many: 'lists' },
  onlyContacts: true,
});
