import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../field/field-definition';
import type { FinisherUse } from '../value/value';
import type { Answer } from './answer-names';
import { hasMarkup } from '../value/finishers/without-markup';
import { WHOLE_NAMES } from '../reading/synonyms';

/** The finishers that what arrives usually needs for a field. */
export function finishing(
  field: FieldDefinition,
  answer: Answer,
  { defaultCountry }: Destination,
  beside: Beside,
): { finishers?: FinisherUse[] } {
  const marked = answer.seen.values.some(({ value }) => hasMarkup(value));
  const uses = [...(marked ? [{ use: 'without-markup' }] : []), ...usesFor(field, answer, defaultCountry, beside)];
  return uses.length ? { finishers: uses } : {};
}

/** What a name that somebody typed usually needs. */
export const NAME_FINISHERS: readonly FinisherUse[] = [{ use: 'trim' }, { use: 'collapse' }, { use: 'name-case' }];

/** What else arrives beside an answer, where that says how to read it. */
export interface Beside {
  /** The key of the answer that names the country. */
  country: string | null;
  /** Whether a given name comes by itself: then a name beside it is the family’s. */
  givenName: boolean;
}

function usesFor(field: FieldDefinition, { seen, names }: Answer, country: string, beside: Beside): FinisherUse[] {
  if (field.key === 'domain') return [{ use: 'company-domain' }];
  if (field.key === 'country') return [{ use: 'country' }];
  if (field.key === 'first_name' || field.key === 'last_name') {
    const own = field.key === 'first_name' ? 'given' : 'family';
    const isWhole = !beside.givenName && [...names].some((name) => WHOLE_NAMES.has(name));
    return [isWhole ? { use: 'split-name', with: { part: own } } : { use: 'trim' }, { use: 'name-case' }];
  }
  if (field.key === 'full_name') return [...NAME_FINISHERS];
  switch (field.type) {
    case 'email':
      return [{ use: 'email' }];
    case 'phone':
      return [{ use: 'phone', with: { country, ...(beside.country ? { countryFrom: beside.country } : {}) } }];
    case 'web':
      return [{ use: 'web-address' }];
    case 'whole-number':
    case 'decimal':
      return seen.kind === 'text' ? [{ use: 'number' }] : [];
    case 'money':
      return [{ use: 'money' }];
    case 'date':
      return [
        {
          use: 'date',
          ...(seen.dateOrder ? { with: { order: seen.dateOrder === 'day-first' ? 'day first' : 'month first' } } : {}),
        },
      ];
    case 'yes-no':
      return [{ use: 'yes-no' }];
    case 'long-text':
      return [{ use: 'whole-text' }];
    case 'text':
      return [{ use: 'trim' }];
    default:
      return [];
  }
}
