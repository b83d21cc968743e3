import type { CreditModel } from '../credit-model';

export const last: CreditModel = {
  key: 'last',
  label: 'last',
  describe: () => 'All goes to what somebody came by last before the deal was closed.',
  shares: (times) => times.map((_, nth) => (nth === times.length - 1 ? 1 : 0)),
};
