import { expect, test } from '@jest/globals';
import { isAboutSending } from './about-sending';
import type { ValueKind } from './value-kind';

test.each<[key: string, kind: ValueKind, label: string, about: boolean]>([
  ['event_id', 'text', '', true],
  ['sheet.submitted_at', 'date-time', '', true],
  ['createdAt', 'whole-number', '', true],
  ['form.name', 'text', '', true],
  ['form_title', 'text', '', true],
  ['definition.title', 'text', '', true],
  ['x', 'id', '', true],
  ['answers.a81', 'id', 'Serial number of your house', false],
  ['name', 'text', '', false],
  ['event.name', 'text', '', false],
  ['visit_date', 'date', '', false],
  ['business.name', 'text', '', false],
  ['updated_budget', 'money', '', false],
  ['title', 'text', '', false],
])('%s, which holds %s and asks “%s”, is about the sending: %s', (key, kind, label, about) =>
  expect(isAboutSending({ key, kind, label: label || key })).toBe(about),
);
