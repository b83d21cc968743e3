import type { CreditModel } from '../credit-model';
import { decay } from './decay';
import { equal } from './equal';
import { first } from './first';
import { last } from './last';
import { position } from './position';

/** Every model that goes by the order and the times of touches alone, as the chooser offers them. */
export const CREDIT_MODELS: readonly CreditModel[] = [first, last, equal, position, decay];

/** The model of a key; `undefined` where there is none. */
export function creditModel(key: string): CreditModel | undefined {
  return CREDIT_MODELS.find((model) => model.key === key);
}
