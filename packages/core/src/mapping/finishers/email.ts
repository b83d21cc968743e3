import { normalEmail } from '../../identity/email';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const email = defineFinisher({
  name: 'email',
  label: 'e-mail',
  description:
    'Brings an e-mail address into its plain form: no display name, no spaces, lower case. What is no address becomes blank.',
  parameters: NO_PARAMETERS,
  example: { before: ' Maren Oduya <M.Oduya@Fennwick.example> ', after: 'm.oduya@fennwick.example' },
  finish(text) {
    const result = normalEmail(text);
    return result.ok ? { text: result.email } : { text: '', problem: result.problem };
  },
});
