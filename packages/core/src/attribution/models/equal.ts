import type { CreditModel } from '../credit-model';

export const equal: CreditModel = {
  key: 'equal',
  label: 'equal shares',
  describe: () => 'Every touch gets the same.',
  shares: (times) => times.map(() => 1 / times.length),
};
