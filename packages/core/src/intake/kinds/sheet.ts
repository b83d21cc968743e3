import { z } from '../../schema-library';
import type { IntakeKind } from '../intake-kind';

/** Files of rows that people who signed in bring; nothing is posted to it. */
export const sheet: IntakeKind = {
  kind: 'sheet',
  label: 'sheet',
  about: 'Files of rows, such as people you met at a fair.',
  isMadeByName: false,
  settings: z.strictObject({}),
  example: {},
  asks: [],
  address: () => null,
  takesPosts: false,
  whileOpen: 'files',
  closes: false,
  brings: 'people',
  tellsNewFields: true,
};
