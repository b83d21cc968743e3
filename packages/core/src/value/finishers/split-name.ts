import { z } from '../../schema-library';
import { splitPersonName } from '../../reading/person-name';
import { defineFinisher } from './finisher';

export const splitName = defineFinisher({
  name: 'split-name',
  label: 'part of a name',
  description:
    'Takes one part of a person’s name: title, given names, family name or suffix, as names are written in several cultures.',
  parameters: z.strictObject({
    part: z.enum(['given', 'family', 'title', 'suffix']).default('given').meta({ title: 'part' }),
    familyNames: z.enum(['1', '2']).default('1').meta({ title: 'words of the family name' }),
  }),
  example: { before: 'Dr Ada van der Meer', after: 'van der Meer', with: { part: 'family' } },
  finish: (text, { part, familyNames }) => ({ text: splitPersonName(text, familyNames === '2' ? 2 : 1)[part] }),
});
