import { warning } from '../../problem';
import { shorten } from '../../text';
import { yesOrNo } from '../../reading/yes-no-words';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const yesNo = defineFinisher({
  name: 'yes-no',
  label: 'yes or no',
  description: 'Writes yes or no, from the words of a dozen languages and what check boxes send.',
  parameters: NO_PARAMETERS,
  example: { before: 'Ja', after: 'yes' },
  finish(text) {
    if (text.trim() === '') return { text: '' };
    const said = yesOrNo(text);
    if (said !== null) return { text: said ? 'yes' : 'no' };
    return { text: '', problem: warning('not-yes-or-no', `“${shorten(text.trim(), 40)}” says neither yes nor no.`) };
  },
});
