import type { DecisionTable } from '@haycart/core';

/** Who gets the application of a dealer, and where it begins. */
export const WHO_TAKES_A_DEALER: DecisionTable = {
  name: 'Who takes a dealer',
  inputs: [
    { of: { answer: 'business.country' }, label: 'Country' },
    { of: { answer: 'business.glass_m2' }, label: 'Glass in m²', as: 'number' },
    { of: { write: 'firm', field: 'hc_known' }, label: 'Known before' },
  ],
  outputs: [
    { name: 'Owner', type: 'owner' },
    { name: 'Stage', type: 'stage' },
  ],
  rows: [
    {
      when: [{ test: 'is', value: 'CA' }, null, null],
      then: { Owner: { person: 'bryony-tew' }, Stage: 'applied' },
      note: 'Bryony speaks French',
    },
    {
      when: [{ test: 'in-set', value: 'continent' }, { test: 'at-least', value: 1_000 }, null],
      then: { Owner: { team: 'continental' }, Stage: 'vetting' },
    },
    {
      when: [{ test: 'in-set', value: 'continent' }, null, null],
      then: { Owner: { team: 'continental' }, Stage: 'applied' },
    },
    {
      when: [{ test: 'in-set', value: 'british-isles' }, { test: 'at-least', value: 1_000 }, { test: 'yes' }],
      then: { Owner: { person: 'robin-nye' }, Stage: 'vetting' },
      note: 'Robin keeps those who grow large',
    },
    {
      when: [{ test: 'in-set', value: 'british-isles' }, null, null],
      then: { Owner: { team: 'dealer-desk' }, Stage: 'applied' },
    },
  ],
  otherwise: { Owner: { team: 'dealer-desk' }, Stage: 'applied' },
};

/** The same as somebody is changing it: a row that can never fit, and cases that no row takes. */
export const WHO_TAKES_A_DEALER_DRAFT: DecisionTable = (() => {
  const { otherwise: _, ...table } = WHO_TAKES_A_DEALER;
  const rows = [...table.rows];
  rows.splice(3, 0, {
    when: [{ test: 'is', value: 'DE' }, { test: 'below', value: 200 }, null],
    then: { Owner: { person: 'jonas-ebel' }, Stage: 'applied' },
    note: 'Jonas wants the small ones in Germany',
  });
  return { ...table, rows };
})();
