import { FIRST_NAMES, LAST_NAMES } from './material';
import type { Random } from './random';
import type { MadeUp } from './submissions';

const DAY = 86_400_000;
/** Every so many days somebody leaves a care plan. */
const EVERY = 11;
const WHY = ['price', 'moved', 'service', 'other'];
const WORDS = [
  'The gasket of the ridge vent leaked for a month, and nobody came.',
  'We were promised a spring clean and had to ask three times.',
  'The new gardener does it herself now. Thank you all the same.',
  'I never knew whom to ring.',
];

/** A year of people who leave their care plan, up to two hours ago, oldest first. */
export function madeUpCancellations(random: Random, now: Date): MadeUp[] {
  return Array.from({ length: Math.floor(365 / EVERY) + 1 }, (_, index) => {
    const at = new Date(now.getTime() - index * EVERY * DAY - 7_200_000);
    const [first, last] = [random.pick(FIRST_NAMES), random.pick(LAST_NAMES)];
    const why = random.pick(WHY);
    const told = why === 'service' || why === 'other';
    return {
      intake: 'cancel' as const,
      at,
      payload: {
        first_name: first,
        last_name: last,
        email: `plan${String(400 + index)}@example.org`,
        plan: `CP-${String(9_400 - index * 7).padStart(4, '0')}`,
        why,
        ...(told ? { what_went_wrong: random.pick(WORDS) } : {}),
      },
      visit: { page: 'https://quillfern.example/glasshouses/care', formVersion: '1' },
    };
  }).reverse();
}
