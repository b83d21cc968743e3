import { markEffect } from './mark';

/** Adds tags to a record, and takes tags off. */
export const tag = markEffect({
  do: 'tag',
  field: 'tags',
  label: 'Tags',
  description: 'Adds tags to the record and removes tags from it.',
  words: { add: 'is tagged', remove: 'loses the tag', many: 'tags' },
  onlyContacts: false,
});
