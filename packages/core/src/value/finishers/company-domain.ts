import { companyDomain } from '../../reading/domain';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const companyDomainOf = defineFinisher({
  name: 'company-domain',
  label: 'company domain',
  description:
    'The registrable domain of an e-mail address or web address; blank for free mailboxes, which belong to no company.',
  parameters: NO_PARAMETERS,
  example: { before: 'https://www.fennwick.example/visit', after: 'fennwick.example' },
  finish: (text) => ({ text: companyDomain(text) ?? '' }),
});
