import { getDomain } from 'tldts';
import { defineFinisher, eachLine, NO_PARAMETERS } from './finisher';

export const domain = defineFinisher({
  name: 'domain',
  label: 'domain',
  description: 'The registrable domain of a web or e-mail address, by the Public Suffix List; free mailboxes too.',
  parameters: NO_PARAMETERS,
  example: { before: 'ada@mail.fennwick.co.uk', after: 'fennwick.co.uk' },
  finish: (text) =>
    eachLine(text, (line) => ({
      text: getDomain(line.trim().toLowerCase().slice(0, 2_000).replace(/^.*@/, ''), { validateHostname: false }) ?? '',
    })),
});
