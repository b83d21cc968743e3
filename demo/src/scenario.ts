import type { FieldDefinition, FormDefinition, Pipeline, RouteDefinition, Value } from '@haycart/core';

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
];

const GROWING_FOR = [
  { key: 'teaching-garden', label: 'Teaching garden', aliases: ['school garden'] },
  { key: 'vegetables-to-sell', label: 'Vegetables to sell', aliases: ['vegetables'] },
  { key: 'seeds-and-trials', label: 'Seeds and trials' },
  { key: 'ornamentals', label: 'Ornamentals' },
  { key: 'public-collection', label: 'A public collection' },
  { key: 'something-else', label: 'Something else' },
];

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

export const TEAMS = [
  { key: 'builds-north', name: 'Builds North', people: ['Robin Nye', 'Idris Vale', 'Morag Sel'] },
  { key: 'builds-south', name: 'Builds South', people: ['Sunita Kaur', 'Tomos Pugh'] },
  { key: 'continental', name: 'Continental', people: ['Marlies Tol', 'Jonas Ebel', 'Anneke Prins'] },
  { key: 'care-desk', name: 'Care desk', people: ['Hanne Lie', 'Corin Ash'] },
  { key: 'dealer-desk', name: 'Dealer desk', people: ['Farid Amrani', 'Bryony Tew'] },
];

export const SURVEY_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Ask for a site survey',
  intro:
    'Tell us a little about the place and what you grow. It takes about a minute, and somebody who builds glasshouses will answer.',
  language: 'en-GB',
  button: 'Ask for a survey',
  thanks: {
    title: 'Thank you, we have it',
    text: 'One of our surveyors will get in touch within two working days to find a time.',
  },
  questions: [
    { name: 'first_name', type: 'text', label: 'First name', required: true },
    { name: 'last_name', type: 'text', label: 'Last name', required: true },
    { name: 'email', type: 'email', label: 'Work e-mail', required: true, placeholder: 'name@example.com' },
    { name: 'phone', type: 'phone', label: 'Phone' },
    { name: 'organisation', type: 'text', label: 'School, garden or company', placeholder: 'Fennwick Academy' },
    {
      name: 'growing_for',
      type: 'choice',
      label: 'What will you grow?',
      required: true,
      options: GROWING_FOR.map(({ label }) => ({ value: label, label })),
    },
    {
      name: 'bays',
      type: 'text',
      label: 'How many bays?',
      help: 'One bay is three metres. A guess is fine.',
      longest: 4,
    },
    { name: 'budget', type: 'text', label: 'Budget', placeholder: '£ 48,000' },
    { name: 'message', type: 'long-text', label: 'Anything we should know' },
    {
      name: 'consent',
      type: 'consent',
      label: 'You may write to me about glasshouses. I can stop this at any time.',
      version: '3',
    },
    { name: 'channel', type: 'hidden', label: '', value: 'web' },
  ],
};

export const PRICELIST_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Glazing price list',
  intro: 'Where may we send it?',
  language: 'en-GB',
  button: 'Send me the list',
  thanks: { title: 'It is on its way', text: 'The price list of this season goes to your address today.' },
  questions: [
    { name: 'first_name', type: 'text', label: 'First name', required: true },
    { name: 'last_name', type: 'text', label: 'Last name', required: true },
    { name: 'email', type: 'email', label: 'E-mail', required: true },
    { name: 'organisation', type: 'text', label: 'Company' },
    {
      name: 'consent',
      type: 'consent',
      label: 'You may write to me about glasshouses. I can stop this at any time.',
      version: '3',
    },
  ],
};

const answer = (key: string, ...finishers: string[]): Value => ({
  parts: [{ answer: key }],
  finishers: finishers.map((use) => ({ use })),
});
const text = (words: string): Value => ({ parts: [{ text: words }] });
const SOURCE: Value = { parts: [{ visit: 'source' }] };

export const SURVEY_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Site survey request',
  from: ['survey'],
  writes: [
    {
      as: 'firm',
      record: 'company',
      match: [{ by: 'domain' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'name', value: answer('organisation', 'trim', 'collapse') },
        { field: 'domain', value: answer('email', 'company-domain') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'update',
      links: ['firm'],
      fills: [
        { field: 'first_name', value: answer('first_name', 'trim', 'collapse', 'name-case') },
        { field: 'last_name', value: answer('last_name', 'trim', 'collapse', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        {
          field: 'phone',
          value: { parts: [{ answer: 'phone' }], finishers: [{ use: 'phone', with: { country: 'GB' } }] },
        },
        { field: 'growing_for', value: answer('growing_for', 'trim') },
        { field: 'may_write', value: answer('consent') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'sale',
      record: 'deal',
      links: ['person', 'firm'],
      place: { pipeline: text('new-builds'), stage: text('enquiry'), again: 'update' },
      fills: [
        {
          field: 'name',
          value: {
            parts: [
              { write: 'firm', field: 'name' },
              { write: 'person', field: 'full_name' },
            ],
            joinWith: ', ',
          },
          overwrite: 'if-blank',
        },
        { field: 'value', value: answer('budget', 'trim') },
        { field: 'bays', value: answer('bays', 'trim') },
        { field: 'message', value: answer('message', 'whole-text') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
};

export const PRICELIST_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Price list readers',
  from: ['pricelist'],
  writes: [
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'first_name', value: answer('first_name', 'trim', 'collapse', 'name-case') },
        { field: 'last_name', value: answer('last_name', 'trim', 'collapse', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        { field: 'may_write', value: answer('consent') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
  ],
};

export const DEALERS_ROUTE: RouteDefinition = {
  format: 'haycart.route/1',
  name: 'Dealer application',
  from: ['dealers'],
  writes: [
    {
      as: 'firm',
      record: 'company',
      match: [{ by: 'domain' }],
      whenMatched: 'update',
      fills: [
        { field: 'name', value: answer('business.name', 'trim', 'collapse') },
        { field: 'domain', value: answer('business.website', 'company-domain') },
        { field: 'website', value: answer('business.website', 'trim') },
        { field: 'country', value: answer('business.country', 'trim') },
        { field: 'glass_area', value: answer('business.glass_m2') },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      whenMatched: 'update',
      links: ['firm'],
      fills: [
        { field: 'first_name', value: answer('person.name.first', 'trim', 'name-case') },
        { field: 'last_name', value: answer('person.name.last', 'trim', 'name-case') },
        { field: 'email', value: answer('person.email', 'email') },
        {
          field: 'phone',
          value: { parts: [{ answer: 'person.phones[0]' }], finishers: [{ use: 'phone', with: { country: 'NL' } }] },
        },
        { field: 'job_title', value: answer('person.role', 'trim'), overwrite: 'if-blank' },
        { field: 'source', value: SOURCE, overwrite: 'if-blank' },
      ],
    },
    {
      as: 'application',
      record: 'deal',
      links: ['person', 'firm'],
      place: { pipeline: text('dealers'), stage: text('applied'), again: 'new-if-closed' },
      fills: [
        { field: 'name', value: { parts: [{ text: 'Dealership' }, { write: 'firm', field: 'name' }] } },
        { field: 'message', value: answer('plans.message', 'whole-text') },
        { field: 'source', value: SOURCE },
      ],
    },
  ],
};

/** Marram Boat Sheds: the second, small workspace, which shows that workspaces are closed to each other. */
export const MARRAM = {
  pipeline: {
    key: 'sheds',
    name: 'Boat sheds',
    record: 'deal',
    stages: [
      { key: 'asked', name: 'Asked', state: 'open' },
      { key: 'visited', name: 'Visited', state: 'open' },
      { key: 'offered', name: 'Offered', state: 'open' },
      { key: 'won', name: 'Won', state: 'won' },
      { key: 'lost', name: 'Lost', state: 'lost' },
    ],
  } satisfies Pipeline,
  form: {
    format: 'haycart.form/1',
    title: 'A shed for your boat',
    language: 'en-GB',
    button: 'Ask us',
    thanks: { title: 'Thank you', text: 'We answer within a day, tides permitting.' },
    questions: [
      { name: 'name', type: 'text', label: 'Your name', required: true },
      { name: 'email', type: 'email', label: 'E-mail', required: true },
      { name: 'boat', type: 'text', label: 'Which boat?' },
    ],
  } satisfies FormDefinition,
  route: {
    format: 'haycart.route/1',
    name: 'Shed enquiry',
    from: ['sheds'],
    writes: [
      {
        as: 'person',
        record: 'contact',
        match: [{ by: 'email' }],
        fills: [
          { field: 'full_name', value: answer('name', 'trim', 'name-case') },
          { field: 'email', value: answer('email', 'email') },
          { field: 'source', value: SOURCE, overwrite: 'if-blank' },
        ],
      },
      {
        as: 'shed',
        record: 'deal',
        links: ['person'],
        place: { pipeline: text('sheds'), stage: text('asked'), again: 'update' },
        fills: [
          {
            field: 'name',
            value: { parts: [{ text: 'Shed for' }, { answer: 'boat' }], finishers: [{ use: 'collapse' }] },
          },
          { field: 'source', value: SOURCE },
        ],
      },
    ],
  } satisfies RouteDefinition,
};
