import type { FieldType } from '@haycart/core';

/** What people call the types of fields. */
export const TYPE_WORDS: Record<FieldType, string> = {
  text: 'text',
  'long-text': 'long text',
  'whole-number': 'whole number',
  decimal: 'decimal',
  money: 'money',
  date: 'date',
  'date-time': 'date and time',
  'yes-no': 'yes or no',
  'one-of': 'one of a list',
  'several-of': 'several of a list',
  email: 'e-mail',
  phone: 'phone',
  person: 'person',
  web: 'web address',
};
