import { expect, test } from '@jest/globals';
import { BUILT_IN_FIELDS, type FormItem } from '@haycart/core';
import { itemWords, kindWords } from './item-words';

test.each<[FormItem, string, string]>([
  [{ name: 'email', type: 'email', label: '', feeds: { record: 'contact', field: 'email' } }, 'E-mail', 'E-mail'],
  [{ name: 'email', type: 'email', label: 'At work' }, 'At work', 'E-mail'],
  [{ name: 'gone', type: 'text', label: '', feeds: { record: 'deal', field: 'gone' } }, 'gone', 'Short text'],
  [{ name: 'channel', type: 'hidden', label: '', value: 'web' }, 'channel = web', 'Not shown'],
  [{ name: 'stand', type: 'hidden', label: '', from: 'stand' }, 'stand = ?stand', 'Not shown'],
  [{ name: 'empty', type: 'hidden', label: '' }, 'empty = …', 'Not shown'],
  [{ name: 'words', type: 'text-block', text: 'First line\nsecond' }, 'First line', 'Text'],
  [{ name: 'logo', type: 'image', parts: [{ address: 'https://x.example/', text: 'A bay' }] }, 'A bay', 'Picture'],
  [{ name: 'line', type: 'divider' }, 'Line', 'Line'],
])('%j is called “%s”', (item, words, kind) => {
  expect(itemWords(item, BUILT_IN_FIELDS)).toBe(words);
  expect(kindWords(item)).toBe(kind);
});
