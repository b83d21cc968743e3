import type { CreditModel } from '../credit-model';

/** What the first and the last touch get each; those between share the rest. */
export const AT_THE_ENDS = 0.4;

export const position: CreditModel = {
  key: 'position',
  label: '40-20-40',
  describe: () => 'The first and the last touch get 40 % each, those between share 20 %; of two each gets half.',
  shares(times) {
    const between = times.length - 2;
    if (between < 1) return times.map(() => 1 / times.length);
    return times.map((_, nth) =>
      nth === 0 || nth === times.length - 1 ? AT_THE_ENDS : (1 - 2 * AT_THE_ENDS) / between,
    );
  },
};
