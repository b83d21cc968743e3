/** What happens to a record that is known: `leave` keeps it as it is, and it is linked; of `skip` nothing is written. */
export const WHEN_MATCHED = ['update', 'fill-blanks', 'leave', 'skip', 'ask'] as const;
export const WHEN_MATCHED_WORDS: Readonly<Record<(typeof WHEN_MATCHED)[number], string>> = {
  update: 'update it',
  'fill-blanks': 'fill only what is blank',
  leave: 'leave it as it is',
  skip: 'write nothing of it',
  ask: 'ask a person',
};

/** What a second enquiry does to the deal or lead that there is. */
export const AGAIN = ['update', 'new', 'new-if-closed', 'leave'] as const;
/** @param word What the record is called: `deal`. */
export function againWords(word: string): Readonly<Record<(typeof AGAIN)[number], string>> {
  return {
    update: `updates the open ${word}`,
    new: `makes another ${word}`,
    'new-if-closed': `leaves an open ${word} as it is`,
    leave: `leaves any ${word} as it is`,
  };
}
