import { warning } from '../../problem';
import { shorten } from '../../text';
import { countryNamed } from '../../reading/country-name';
import { defineFinisher, NO_PARAMETERS } from './finisher';

export const country = defineFinisher({
  name: 'country',
  label: 'country',
  description:
    'Writes a country as its ISO 3166-1 code (GB), from its name in a dozen languages. What names none becomes blank.',
  parameters: NO_PARAMETERS,
  example: { before: 'Pays-Bas', after: 'NL' },
  finish(text) {
    const code = countryNamed(text);
    if (code || text.trim() === '') return { text: code ?? '' };
    return { text: '', problem: warning('not-a-country', `“${shorten(text.trim(), 40)}” names no country.`) };
  },
});
