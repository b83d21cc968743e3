import type { CreditModel } from '../credit-model';

export const first: CreditModel = {
  key: 'first',
  label: 'first',
  describe: () => 'All goes to what somebody first came by.',
  shares: (times) => times.map((_, nth) => (nth === 0 ? 1 : 0)),
};
