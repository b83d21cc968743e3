import type { FieldDefinition, FieldOption, Pipeline } from '@haycart/core';

/** Quillfern Glasshouses: builds modular glasshouses and looks after them. */
export const PIPELINES: Pipeline[] = [
  {
    key: 'new-builds',
    name: 'New builds',
    record: 'deal',
    stages: [
      { key: 'enquiry', name: 'Enquiry', state: 'open', probability: 15, stuckAfter: 14 },
      { key: 'site-survey', name: 'Site survey', state: 'open', probability: 30, stuckAfter: 21 },
      { key: 'design', name: 'Design', state: 'open', probability: 45, stuckAfter: 30 },
      { key: 'quote', name: 'Quote', state: 'open', probability: 60, stuckAfter: 21 },
      { key: 'contract', name: 'Contract', state: 'open', probability: 85, stuckAfter: 14 },
      { key: 'won', name: 'Won', state: 'won' },
      { key: 'lost', name: 'Lost', state: 'lost' },
    ],
  },
  {
    key: 'care-plans',
    name: 'Care plans',
    record: 'deal',
    stages: [
      { key: 'renewal-due', name: 'Renewal due', state: 'open', probability: 70, stuckAfter: 30 },
      { key: 'call-booked', name: 'Call booked', state: 'open', probability: 75, stuckAfter: 10 },
      { key: 'offer-made', name: 'Offer made', state: 'open', probability: 80, stuckAfter: 14 },
      { key: 'kept', name: 'Kept', state: 'won' },
      { key: 'left', name: 'Left', state: 'lost' },
    ],
  },
  {
    key: 'dealers',
    name: 'Dealers',
    record: 'deal',
    stages: [
      { key: 'applied', name: 'Applied', state: 'open', probability: 20, stuckAfter: 14 },
      { key: 'vetting', name: 'Vetting', state: 'open', probability: 40, stuckAfter: 30 },
      { key: 'trial-order', name: 'Trial order', state: 'open', probability: 70, stuckAfter: 60 },
      { key: 'signed', name: 'Signed', state: 'won' },
      { key: 'declined', name: 'Declined', state: 'lost' },
    ],
  },
  {
    key: 'first-calls',
    name: 'First calls',
    record: 'lead',
    stages: [
      { key: 'new', name: 'New', state: 'open', stuckAfter: 3 },
      { key: 'called', name: 'Called', state: 'open', stuckAfter: 10 },
      { key: 'qualified', name: 'Qualified', state: 'won' },
      { key: 'set-aside', name: 'Set aside', state: 'lost' },
    ],
  },
];

export const GROWING_FOR = [
  { key: 'teaching-garden', label: 'Teaching garden', aliases: ['school garden'], colour: 'straw' },
  { key: 'vegetables-to-sell', label: 'Vegetables to sell', aliases: ['vegetables'], colour: 'moss' },
  { key: 'seeds-and-trials', label: 'Seeds and trials', colour: 'clay' },
  { key: 'ornamentals', label: 'Ornamentals', colour: 'plum' },
  { key: 'public-collection', label: 'A public collection', colour: 'slate' },
  { key: 'something-else', label: 'Something else', colour: 'stone' },
] satisfies FieldOption[];

const field = (
  record: FieldDefinition['record'],
  key: string,
  label: string,
  type: FieldDefinition['type'],
  more: Partial<FieldDefinition> = {},
): FieldDefinition => ({
  record,
  key,
  label,
  type,
  builtIn: false,
  required: false,
  ...more,
});

export const FIELDS: FieldDefinition[] = [
  field('contact', 'last_name', 'Last name', 'text', { builtIn: true, required: true }),
  field('contact', 'email', 'E-mail', 'email', { builtIn: true, required: true }),
  field('contact', 'growing_for', 'Growing for', 'one-of', { options: GROWING_FOR }),
  field('contact', 'may_write', 'May write', 'yes-no', { help: 'Agreed to hear from us' }),
  field('company', 'glass_area', 'Glass area today (m²)', 'decimal'),
  field('lead', 'bays', 'Bays', 'whole-number'),
  field('deal', 'bays', 'Bays', 'whole-number'),
  field('deal', 'heating', 'Heating', 'one-of', {
    options: [
      { key: 'none', label: 'None' },
      { key: 'frost-free', label: 'Frost-free' },
      { key: 'warm', label: 'Warm' },
    ],
  }),
  field('deal', 'wanted_by', 'Wanted by', 'date'),
];
