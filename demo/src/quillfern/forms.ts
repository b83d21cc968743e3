import { PLAIN_THEME, type FormDefinition, type Question, type RecordKind, type Theme } from '@haycart/core';

/** A question that asks for a field of a record, in words of its own where they are given. */
const asks = (record: RecordKind, field: string, name: string, more: Partial<Question> = {}): Question => ({
  name,
  type: 'text',
  label: '',
  feeds: { record, field },
  ...more,
});

/** The words that visitors agree to. */
export const CONSENT_WORDS = 'You may write to me about glasshouses. I can stop this at any time.';

const CONSENT: Question = {
  name: 'consent',
  type: 'consent',
  label: CONSENT_WORDS,
  version: '3',
  feeds: { record: 'contact', field: 'may_write' },
};

const NAME: Question[] = [
  asks('contact', 'first_name', 'first_name', { required: true }),
  asks('contact', 'last_name', 'last_name', { required: true }),
];

export const THEMES: { name: string; theme: Theme }[] = [
  {
    name: 'Quillfern light',
    theme: PLAIN_THEME,
  },
  {
    name: 'Potting shed',
    theme: {
      font: 'bricolage',
      background: '#f6f1e4',
      sheet: '#fffdf7',
      ink: '#2c2517',
      accent: '#8a4b1f',
      accentInk: '#ffffff',
      corner: 10,
      width: 560,
      spacing: 'airy',
      align: 'centre',
      button: { size: 'large', at: 'full' },
    },
  },
  {
    name: 'Night house',
    theme: {
      font: 'figtree',
      background: '#16251f',
      sheet: '#20342c',
      ink: '#eef5ee',
      accent: '#e2b23a',
      accentInk: '#1b231a',
      corner: 2,
      width: 520,
      spacing: 'tight',
      align: 'left',
      button: { size: 'usual', at: 'right' },
    },
  },
];

export const SURVEY_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Ask for a site survey',
  intro:
    'Tell us a little about the place and what you grow. It takes about a minute, and somebody who builds glasshouses will answer.',
  language: 'en-GB',
  theme: 'quillfern-light',
  button: 'Ask for a survey',
  after: {
    do: 'thank',
    title: 'Thank you, {first_name}, we have it',
    text: 'One of our surveyors will get in touch within two working days to find a time.',
  },
  items: [
    { name: 'step_you', type: 'step', text: 'You' },
    ...NAME,
    asks('contact', 'email', 'email', { label: 'Work e-mail', required: true, placeholder: 'name@example.com' }),
    asks('contact', 'phone', 'phone', { label: 'Phone', country: 'GB', asksCountry: true }),
    asks('company', 'name', 'organisation', {
      label: 'School, garden or company',
      placeholder: 'Fennwick Academy',
    }),
    { name: 'step_glasshouse', type: 'step', text: 'The glasshouse' },
    asks('contact', 'growing_for', 'growing_for', {
      type: 'one-of',
      label: 'What will you grow?',
      required: true,
      shownAs: 'cards',
    }),
    {
      name: 'pupils',
      type: 'whole-number',
      label: 'How many pupils will use it at once?',
      checks: { least: 1, most: 200 },
      shownWhen: { of: { question: 'growing_for' }, test: 'is-any-of', value: ['teaching-garden'] },
    },
    asks('deal', 'bays', 'bays', {
      type: 'whole-number',
      label: 'How many bays?',
      help: 'One bay is three metres. A guess is fine.',
      checks: { least: 1, most: 400 },
    }),
    asks('deal', 'wanted_by', 'wanted_by', { type: 'date', label: 'Needed by' }),
    asks('deal', 'value', 'budget', { type: 'money', label: 'Budget', placeholder: '48,000', currency: 'GBP' }),
    asks('deal', 'message', 'message', { type: 'long-text', label: 'Anything we should know' }),
    {
      name: 'photo',
      type: 'file',
      label: 'A photo of the site',
      checks: { fileTypes: ['jpg', 'jpeg', 'png', 'pdf'], largest: 10_000_000 },
    },
    CONSENT,
    { name: 'channel', type: 'hidden', label: '', value: 'web' },
  ],
  translations: {
    nl: {
      title: 'Vraag een opmeting aan',
      intro:
        'Vertel ons iets over de plek en wat u kweekt. Het duurt ongeveer een minuut, en iemand die kassen bouwt geeft antwoord.',
      button: 'Opmeting aanvragen',
      'after/title': 'Dank u, {first_name}, we hebben het',
      'after/text': 'Een van onze landmeters neemt binnen twee werkdagen contact op om een tijd te vinden.',
      'items/step_you/text': 'Uzelf',
      'items/step_glasshouse/text': 'De kas',
      'items/first_name/label': 'Voornaam',
      'items/last_name/label': 'Achternaam',
      'items/email/label': 'E-mail op het werk',
      'items/phone/label': 'Telefoon',
      'items/organisation/label': 'School, tuin of bedrijf',
      'items/growing_for/label': 'Wat gaat u kweken?',
      'items/pupils/label': 'Hoeveel leerlingen gebruiken haar tegelijk?',
      'items/bays/label': 'Hoeveel traveeën?',
      'items/bays/help': 'Een travee is drie meter. Een schatting is goed.',
      'items/wanted_by/label': 'Nodig voor',
      'items/budget/label': 'Budget',
      'items/message/label': 'Wat we moeten weten',
      'items/photo/label': 'Een foto van de plek',
      'items/consent/label': 'U mag mij over kassen schrijven. Ik kan dit altijd stoppen.',
    },
  },
};

export const PRICELIST_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Glazing price list',
  intro: 'Where may we send it?',
  language: 'en-GB',
  theme: 'night-house',
  button: 'Send me the list',
  after: {
    do: 'thank',
    title: 'It is on its way',
    text: 'The price list of this season goes to {email} today.',
  },
  items: [
    ...NAME,
    asks('contact', 'email', 'email', { required: true }),
    { name: 'organisation', type: 'text', label: 'Company' },
    CONSENT,
  ],
};

/** What colleagues enter while a partner is on the phone. */
export const CALLS_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'A partner called',
  language: 'en-GB',
  button: 'Enter it',
  after: { do: 'thank', title: 'Entered', text: 'The next one can be entered.' },
  items: [
    asks('lead', 'name', 'caller', { label: 'Who it is about', required: true }),
    asks('lead', 'email', 'email'),
    asks('lead', 'phone', 'phone'),
    asks('lead', 'company_name', 'organisation', { label: 'Organisation' }),
    asks('lead', 'bays', 'bays', { label: 'Bays' }),
    asks('lead', 'message', 'said', { label: 'What was said' }),
  ],
};

export const GRANT_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'A school garden grant',
  intro:
    'Twelve schools a year get half of their glasshouse paid. Tell us about yours; the trustees read every enquiry.',
  language: 'en-GB',
  theme: 'potting-shed',
  button: 'Ask for the grant papers',
  after: { do: 'thank', title: 'Thank you, {first_name}', text: 'The papers reach you within a week.' },
  items: [
    ...NAME,
    asks('contact', 'email', 'email', {
      label: 'E-mail at school',
      required: true,
      checks: { workEmail: true },
    }),
    asks('contact', 'job_title', 'role', { label: 'What you do there', placeholder: 'Head of science' }),
    asks('company', 'name', 'school', { label: 'School', required: true }),
    { name: 'where', type: 'address', label: 'Where it is', country: 'GB' },
    { name: 'garden_now', type: 'yes-no', label: 'Is there a garden already?', required: true },
    {
      name: 'garden_size',
      type: 'one-of',
      label: 'How large is it?',
      shownAs: 'radios',
      options: [
        { value: 'beds', label: 'A few beds' },
        { value: 'plot', label: 'A plot of its own' },
        { value: 'field', label: 'A field' },
      ],
      shownWhen: { of: { question: 'garden_now' }, test: 'yes' },
    },
    {
      name: 'subjects',
      type: 'several-of',
      label: 'Who will use it?',
      options: [
        { value: 'science', label: 'Science' },
        { value: 'cookery', label: 'Cookery' },
        { value: 'art', label: 'Art' },
        { value: 'club', label: 'The garden club' },
      ],
    },
    CONSENT,
  ],
};

export const CANCEL_FORM: FormDefinition = {
  format: 'haycart.form/1',
  title: 'Leave the care plan',
  intro: 'We are sorry. Two questions, and it is done at the end of the month.',
  language: 'en-GB',
  theme: 'quillfern-light',
  button: 'End the plan',
  after: {
    do: 'thank',
    title: 'It ends with this month',
    text: 'Thank you for the years, {first_name}. Somebody of the care desk writes to {email} to confirm.',
  },
  items: [
    ...NAME,
    asks('contact', 'email', 'email', { required: true }),
    {
      name: 'plan',
      type: 'text',
      label: 'Number of the plan',
      required: true,
      checks: { pattern: 'CP-9999' },
      placeholder: 'CP-0412',
      help: 'It stands at the top of the last bill.',
    },
    {
      name: 'why',
      type: 'one-of',
      label: 'Why do you leave?',
      required: true,
      shownAs: 'radios',
      options: [
        { value: 'price', label: 'It costs too much' },
        { value: 'moved', label: 'The house is gone or sold' },
        { value: 'service', label: 'We were not content' },
        { value: 'other', label: 'Another reason' },
      ],
    },
    {
      name: 'what_went_wrong',
      type: 'long-text',
      label: 'What should we have done better?',
      shownWhen: { of: { question: 'why' }, test: 'is-any-of', value: ['service', 'other'] },
    },
  ],
};
