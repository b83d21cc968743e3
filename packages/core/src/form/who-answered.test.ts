import { expect, test } from '@jest/globals';
import type { FormItem } from './definition';
import { whoAnswered } from './who-answered';

const asks = (record: 'contact' | 'lead' | 'company', field: string, name: string): FormItem => ({
  name,
  type: 'text',
  label: '',
  feeds: { record, field },
});
const FORM = {
  items: [asks('lead', 'name', 'caller'), asks('contact', 'first_name', 'a'), asks('contact', 'last_name', 'b')],
};

test.each([
  [{ caller: 'Ada Weir', email: 'ada@weir.example' }, 'Ada Weir'],
  [{ caller: 'Weir Ltd', a: 'Ada', b: 'Weir' }, 'Ada Weir'],
  [{ a: ' Ada ', b: '' }, 'Ada'],
  [{ caller: '', email: 'ada@weir.example' }, 'ada@weir.example'],
  [{ name: 'Ada' }, 'Ada'],
  [{}, ''],
])('%j is about “%s”', (payload, who) => expect(whoAnswered(FORM, payload)).toBe(who));

test('a company is not who answered', () => {
  expect(whoAnswered({ items: [asks('company', 'name', 'firm')] }, { firm: 'Weir Ltd' })).toBe('');
});
