import { apportion } from '../attribution/apportion';
import { dayAfter } from '../condition/wanted';

/** What a campaign cost on one day at one source. Minor units. */
export interface DayCost {
  day: string;
  amount: number;
}

/** The most days over which a cost is spread. */
export const MOST_COST_DAYS = 1_100;

/** The days of a period, including both ends. Empty when the period ends before it begins, or is too long. */
export function daysBetween(from: string, to: string): string[] {
  const count = (Date.parse(to) - Date.parse(from)) / 86_400_000 + 1;
  if (!(count >= 1 && count <= MOST_COST_DAYS)) return [];
  return Array.from({ length: count }, (_, index) => dayAfter(from, index));
}

/** Spreads a cost equally over days; the parts add up to it exactly. */
export function spreadCost(amount: number, days: readonly string[]): DayCost[] {
  const parts = apportion(
    amount,
    days.map(() => 1),
  );
  return days.map((day, index) => ({ day, amount: parts[index]! }));
}
