import type { Destination } from '../destination/destination';
import type { FieldDefinition } from '../destination/field-definition';
import type { FinisherUse } from '../route/definition';
import type { Answer } from './answer-names';

/** The finishers that what arrives usually needs for a field. */
export function finishing(
  field: FieldDefinition,
  answer: Answer,
  { defaultCountry }: Destination,
): { finishers?: FinisherUse[] } {
  const uses = usesFor(field, answer, defaultCountry);
  return uses.length ? { finishers: uses } : {};
}

function usesFor(field: FieldDefinition, { seen, name, labelName }: Answer, country: string): FinisherUse[] {
  if (field.key === 'domain') return [{ use: 'company-domain' }];
  if (field.key === 'country') return [{ use: 'country' }];
  if (field.key === 'first_name' || field.key === 'last_name') {
    const own = field.key === 'first_name' ? 'given' : 'family';
    const isWhole = WHOLE_NAMES.has(name) || WHOLE_NAMES.has(labelName);
    return [isWhole ? { use: 'split-name', with: { part: own } } : { use: 'trim' }, { use: 'name-case' }];
  }
  if (field.key === 'full_name') return [{ use: 'trim' }, { use: 'collapse' }, { use: 'name-case' }];
  switch (field.type) {
    case 'email':
      return [{ use: 'email' }];
    case 'phone':
      return [{ use: 'phone', with: { country } }];
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

const WHOLE_NAMES = new Set([
  'name',
  'fullname',
  'yourname',
  'naam',
  'uwnaam',
  'contact',
  'contactname',
  'ihrname',
  'nom',
  'nombre',
]);
