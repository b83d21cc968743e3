import { normalEmail, severalEmails } from '../../reading/email';
import { warning } from '../../problem';
import { listInWords } from '../../text';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const email = defineFinisher({
  name: 'email',
  label: 'e-mail',
  description:
    'Brings an e-mail address into its plain form: no display name, no spaces, lower case. Of several addresses the first is taken. What is no address becomes blank.',
  parameters: NO_PARAMETERS,
  example: { before: ' Maren Oduya <M.Oduya@Fennwick.example> ', after: 'm.oduya@fennwick.example' },
  finish(text) {
    const result = normalEmail(text);
    if (result.ok) return { text: result.email };
    const [first, ...others] = severalEmails(text);
    if (first === undefined || !others.length) return { text: '', problem: result.problem };
    const left = `Several addresses stand here. ${first} was taken, and not ${listInWords(others)}.`;
    return { text: first, problem: warning('several-emails', left) };
  },
});
