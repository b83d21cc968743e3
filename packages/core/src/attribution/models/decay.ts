import { counted } from '../../text';
import type { CreditModel } from '../credit-model';

const DAY = 86_400_000;

/** Exponential decay. Counted back from the last touch: from any other moment on the shares would be the same. */
export const decay: CreditModel = {
  key: 'decay',
  label: 'decay',
  describe: ({ halfLife }) =>
    `The nearer to the last touch, the more: ${counted(halfLife, 'day')} earlier counts half.`,
  shares(times, { halfLife }) {
    const last = times.at(-1)!;
    const weights = times.map((time) => 2 ** ((time - last) / DAY / halfLife));
    const whole = weights.reduce((sum, weight) => sum + weight, 0);
    return weights.map((weight) => weight / whole);
  },
};
