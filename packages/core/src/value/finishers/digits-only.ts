import { defineFinisher, NO_PARAMETERS } from './finisher';

export const digitsOnly = defineFinisher({
  name: 'digits-only',
  label: 'digits only',
  description: 'Leaves out everything but the digits.',
  parameters: NO_PARAMETERS,
  example: { before: 'No. 10-41', after: '1041' },
  finish: (text) => ({ text: text.replace(/[^0-9]/g, '') }),
});
