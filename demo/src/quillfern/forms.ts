import type { FormDefinition } from '@haycart/core';
import { GROWING_FOR } from './destination';

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
