import type { RouteDefinition } from '@haycart/core';
import type { Prepared } from './support';

/** How many people the made-up enquiries come from. */
export const PEOPLE = 12_000;

const answer = (key: string, ...uses: string[]) => ({
  parts: [{ answer: key }],
  finishers: uses.map((use) => ({ use })),
});
const source = { field: 'source', value: { parts: [{ visit: 'source' }] }, overwrite: 'if-blank' as const };
/** Contact by e-mail, company by domain, deal, source. */
export const route = (intake: string): RouteDefinition => ({
  format: 'haycart.route/1',
  name: 'Bench',
  from: [intake],
  writes: [
    {
      as: 'firm',
      record: 'company',
      match: [{ by: 'domain' }],
      whenMatched: 'fill-blanks',
      fills: [
        { field: 'name', value: answer('company', 'trim') },
        { field: 'domain', value: answer('email', 'company-domain') },
        source,
      ],
    },
    {
      as: 'person',
      record: 'contact',
      match: [{ by: 'email' }],
      links: ['firm'],
      fills: [
        { field: 'first_name', value: answer('first', 'trim', 'name-case') },
        { field: 'last_name', value: answer('last', 'trim', 'name-case') },
        { field: 'email', value: answer('email', 'email') },
        { field: 'phone', value: answer('phone', 'phone') },
        source,
      ],
    },
    {
      as: 'sale',
      record: 'deal',
      links: ['person', 'firm'],
      place: {
        pipeline: { parts: [{ text: 'new-builds' }] },
        stage: { parts: [{ text: 'enquiry' }] },
        again: 'update',
      },
      fills: [
        { field: 'name', value: { parts: [{ write: 'person', field: 'full_name' }] }, overwrite: 'if-blank' },
        source,
      ],
    },
  ],
});

/** Puts enquiries into the queue, several from each person. */
export async function fill({ services, workspaceId, intakeId }: Prepared, count: number): Promise<void> {
  for (let from = 0; from < count; from += 2_000) {
    const arrivals = Array.from({ length: Math.min(2_000, count - from) }, (_, offset) => {
      const person = ((from + offset) * 7_919) % PEOPLE;
      const body = {
        first: `First${person}`,
        last: `Last${person}`,
        email: `p${person}@firm${person % 3_000}.example`,
        phone: `+4477009${String(person).padStart(5, '0')}`,
        company: `Firm ${person % 3_000}`,
        message: 'Two bays for seed trials, heated, with shading. '.repeat(6),
      };
      return {
        workspaceId,
        intakeId,
        receivedAt: new Date(),
        format: 'json' as const,
        body: Buffer.from(JSON.stringify(body)),
        visit: {},
      };
    });
    await services.inbox.keepAll(arrivals);
  }
}
