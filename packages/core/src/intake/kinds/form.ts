import { z } from '../../schema-library';
import type { IntakeKind } from '../intake-kind';

/** A form that is hosted here; the area of forms makes it and keeps what it asks. */
export const form: IntakeKind = {
  kind: 'form',
  label: 'form',
  about: 'A page of questions that is hosted here.',
  isMadeByName: false,
  settings: z.strictObject({}),
  example: {},
  asks: [],
  address: ({ slug }) => `/f/${slug}`,
  takesPosts: true,
  whileOpen: 'live',
  closes: true,
  brings: 'enquiries',
  tellsNewFields: false,
};
