import type { FieldDefinition } from '../field/field-definition';
import { optionFor } from '../field/field-value';
import type { ValueKind } from '../payload/value-kind';
import type { SeenField } from './answer-names';

/** What values of a kind are called. */
export const KIND_WORDS: Record<ValueKind, string> = {
  email: 'e-mail addresses',
  phone: 'phone numbers',
  web: 'web addresses',
  date: 'dates',
  'date-time': 'times',
  money: 'amounts of money',
  'whole-number': 'whole numbers',
  decimal: 'numbers',
  'yes-no': 'yes and no',
  country: 'countries',
  id: 'ids',
  list: 'lists',
  'long-text': 'messages',
  text: 'short texts',
};

/** How well what arrives fits the type of a field: `well` says something, `perhaps` nothing, `never` rules it out. */
export function kindFits(field: FieldDefinition, { kind }: SeenField): 'well' | 'perhaps' | 'never' {
  if (field.key === 'domain') return kind === 'email' || kind === 'web' ? 'well' : 'never';
  if (field.key === 'country') return kind === 'country' ? 'well' : kind === 'text' ? 'perhaps' : 'never';
  switch (field.type) {
    case 'email':
    case 'web':
      // In a messy column they look like texts: what its name says counts then.
      return kind === field.type ? 'well' : kind === 'text' ? 'perhaps' : 'never';
    case 'phone':
      return kind === 'phone' ? 'well' : kind === 'whole-number' || kind === 'text' ? 'perhaps' : 'never';
    case 'whole-number':
    case 'decimal':
      return kind === 'whole-number' || kind === 'decimal' ? 'well' : kind === 'text' ? 'perhaps' : 'never';
    case 'money':
      return kind === 'money' ? 'well' : kind === 'whole-number' || kind === 'decimal' ? 'perhaps' : 'never';
    case 'date':
    case 'date-time':
      return kind === 'date' || kind === 'date-time' ? 'well' : 'never';
    case 'yes-no':
      return kind === 'yes-no' ? 'well' : 'never';
    case 'long-text':
      return kind === 'long-text' ? 'well' : kind === 'text' || kind === 'list' ? 'perhaps' : 'never';
    case 'one-of':
    case 'several-of':
    case 'person':
      return kind === 'text' || kind === 'list' || kind === 'whole-number' ? 'perhaps' : 'never';
    case 'text':
      return kind === 'long-text' ? 'never' : 'perhaps';
  }
}

/** How many of the values that came name an option of the field. */
export function optionOverlap(field: FieldDefinition, { values }: SeenField): { weight: number; text: string } | null {
  if (!field.options?.length || !values.length) return null;
  const matching = values.filter(({ value }) => optionFor(field.options!, value));
  if (matching.length < Math.min(2, values.length)) return null;
  const share = matching.length / values.length;
  return share < 0.5
    ? null
    : { weight: 0.5 * share, text: `${matching.length} of ${values.length} values name its options` };
}
