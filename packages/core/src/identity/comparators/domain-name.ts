import { companyNameForm, type CompanyNameForm } from '../company-name-form';
import type { Comparator } from './comparator';
import { jaroWinkler } from './jaro-winkler';

/**
 * How well a web domain may be that of a company of some name: its first label beside the words of the name run together,
 * and their first letters (`rbg.example` for Royal Botanic Garden).
 */
export function domainFitsName(domain: string, { words }: CompanyNameForm): number {
  const label = domain.slice(0, domain.indexOf('.')).replace(/[^a-z0-9]/g, '');
  if (!label) return 0;
  const together = words.join('');
  if (label === together) return 1;
  if (words.length > 2 && label === words.map((word) => word[0]).join('')) return 0.9;
  if (words[0]!.length > 3 && label === words[0]) return 0.9;
  if (label.length > 4 && together.startsWith(label)) return 0.9;
  return jaroWinkler(label, together);
}

function fits(domain: string, name: string): number {
  const form = domain.includes('.') ? companyNameForm(name) : null;
  return form ? domainFitsName(domain, form) : 0;
}

export const domainNameComparator: Comparator = {
  name: 'domain-to-company',
  label: 'Domain fits the name',
  description: 'A web domain beside a company’s name: run together, its first word, or its first letters.',
  alike: (one, other) => Math.max(fits(one, other), fits(other, one)),
  examples: [
    ['fennwickacademy.example', 'The Fennwick Academy Ltd', 1],
    ['fennwick.example', 'Fennwick Academy', 0.9],
    ['rbg.example', 'Royal Botanic Garden', 0.9],
    ['xq.example', 'Alder Nursery', 0],
  ],
};
