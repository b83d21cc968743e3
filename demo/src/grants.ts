import { FIRST_NAMES, LAST_NAMES } from './material';
import type { Random } from './random';
import type { MadeUp } from './submissions';

const DAY = 86_400_000;
/** Every so many days a school asks. */
const EVERY = 19;
const TOWNS = ['Ludlow', 'Hexham', 'Thetford', 'Bude', 'Kelso', 'Brecon', 'Skipton', 'Oakham'];
const KINDS = ['Primary School', 'Academy', 'High School', 'Community School'];
const ROLES = ['Head of science', 'Head teacher', 'Garden club', 'Bursar'];

/** A year of schools that ask for a grant, the latest of them three hours ago; one in six is none. Oldest first. */
export function madeUpGrants(random: Random, now: Date): MadeUp[] {
  return Array.from({ length: Math.floor(365 / EVERY) + 1 }, (_, index) => {
    const at = new Date(now.getTime() - index * EVERY * DAY - 3 * 3_600_000);
    const [first, last, town] = [random.pick(FIRST_NAMES), random.pick(LAST_NAMES), random.pick(TOWNS)];
    const garden = random.chance(0.6);
    return {
      intake: 'grant' as const,
      at,
      payload: {
        first_name: first,
        last_name: last,
        email: `${first}.${last}@${town}-school${index}.example`.toLowerCase().replace(/[^a-z0-9.@-]/g, ''),
        role: random.pick(ROLES),
        school: isNoSchool(index) ? `${town} Garden Sheds` : `${town} ${random.pick(KINDS)}`,
        where: `${String(random.between(1, 90))} School Lane\n${town}`,
        garden_now: garden ? 'yes' : 'no',
        ...(garden ? { garden_size: random.pick(['beds', 'plot', 'field']) } : {}),
        subjects: ['science', 'club'],
        consent: 'yes',
      },
      visit: { page: 'https://quillfern.example/glasshouses/schools', formVersion: '1' },
    };
  }).reverse();
}

function isNoSchool(index: number): boolean {
  return index % 6 === 4;
}
