import type { DecisionTable } from '@haycart/core';

/** Who builds what a survey is asked for. */
export const WHO_BUILDS: DecisionTable = {
  name: 'Who builds',
  inputs: [
    { of: { answer: 'phone' }, label: 'Phone' },
    { of: { answer: 'budget' }, label: 'Budget' },
    { of: { answer: 'bays' }, label: 'Bays', as: 'number' },
  ],
  outputs: [{ name: 'Owner', type: 'owner' }],
  rows: [
    {
      when: [{ test: 'starts-with', value: '+31' }, null, null],
      then: { Owner: { team: 'continental' } },
      note: 'All three speak Dutch',
    },
    { when: [null, { test: 'starts-with', value: '€' }, null], then: { Owner: { team: 'continental' } } },
    {
      when: [null, null, { test: 'at-least', value: 8 }],
      then: { Owner: { team: 'builds-north', shares: { 'idris-vale': 2, 'morag-sel': 2 } } },
      note: 'Robin takes fewer',
    },
  ],
  otherwise: { Owner: { team: 'builds-south', keep: ['contact'] } },
};
