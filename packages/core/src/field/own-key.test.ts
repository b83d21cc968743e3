import { expect, test } from '@jest/globals';
import { BUILT_IN_FIELDS } from './built-in-fields';
import { ownFieldKey, RESERVED_KEYS } from './own-key';

/** The keys that built-in fields had when the first workspaces made fields of their own. This list never grows. */
const FIRST = new Set(
  `first_name last_name full_name email emails phone phones job_title country source external_ids owner tags lists name domain
   domains website company_name message pipeline stage status stage_since reason value closed_at`.split(/\s+/),
);

test('a built-in field has a key that no field of a workspace can have', () => {
  const others = BUILT_IN_FIELDS.map(({ key }) => key).filter((key) => !FIRST.has(key));
  expect(others.filter((key) => !key.startsWith(RESERVED_KEYS))).toEqual([]);
});

test('a field of a workspace is called by its label, and never like one that is to come', () => {
  expect(ownFieldKey('Glass area (m²)', [])).toBe('glass_area_m2');
  expect(ownFieldKey('Bays', ['bays', 'bays_2'])).toBe('bays_3');
  for (const label of ['HC score', 'hc_score', ' Hc: score']) expect(ownFieldKey(label, [])).toBe('own_hc_score');
  expect(ownFieldKey('HC score', ['own_hc_score'])).toBe('own_hc_score_2');
});
