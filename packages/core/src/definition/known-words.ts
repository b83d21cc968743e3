import type { Place, WhenMatched } from './route-definition';

/** What happens to a record that is known already. */
export const WHEN_MATCHED_WORDS: Readonly<Record<WhenMatched, string>> = {
  update: 'update it',
  'fill-blanks': 'fill only what is blank',
  leave: 'leave it as it is',
  skip: 'write nothing of it',
  ask: 'ask a person',
};

/** What a second enquiry does to the deal or lead that there is. */
export const AGAIN_WORDS: Readonly<Record<Place['again'], string>> = {
  update: 'updates the open one',
  new: 'makes another',
  'new-if-closed': 'leaves an open one as it is',
  leave: 'leaves any as it is',
};
