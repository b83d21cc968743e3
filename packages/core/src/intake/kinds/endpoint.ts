import { z } from '../../schema-library';
import type { IntakeKind } from '../intake-kind';

/** An address of its own that other systems and web sites post to. */
export const endpoint: IntakeKind = {
  kind: 'endpoint',
  label: 'endpoint',
  about: 'An address of its own, which another system posts to. You see what arrives on its page.',
  isMadeByName: true,
  settings: z.strictObject({}),
  example: {},
  asks: [],
  address: ({ key }) => `/in/${key}`,
  takesPosts: true,
  whileOpen: 'listening',
  closes: true,
  brings: 'enquiries',
  tellsNewFields: true,
};
