import { describe, expect, test } from '@jest/globals';
import { answer, destination, fill, person, route, routeOf, sale, text } from '../../testing/example';
import { adoptRoute } from './adopt-route';
import { checkRoute } from '../checking/check';
import type { RouteDefinition } from '../../definition/route-definition';

const here = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };
const wrong = (definition: RouteDefinition) =>
  checkRoute(definition, here).flatMap(({ severity, code }) => (severity === 'error' ? [code] : []));

const foreign = routeOf(
  {
    ...person,
    links: [],
    fills: [
      fill('E-Mail', answer('email', 'email')),
      fill('Growing for', answer('growing')),
      fill('shoe_size', answer('shoes')),
    ],
  },
  {
    ...sale,
    links: ['person'],
    when: { of: { write: 'person', field: 'e_mail' }, test: 'filled' },
    place: { pipeline: text('New Builds'), stage: text('Enquiry'), again: 'update' },
    fills: [fill('name', { parts: [{ write: 'person', field: 'Full name' }] })],
  },
);

describe('a route from elsewhere', () => {
  const { route: adopted, adopted: names } = adoptRoute(foreign, destination);

  test('gets the names that things have here', () => {
    expect(names.map(({ what, from, to }) => `${what} ${from}: ${to}`)).toEqual([
      'field E-Mail: email',
      'field Growing for: growing_for',
      'field e_mail: email',
      'field Full name: full_name',
      'pipeline New Builds: new-builds',
      'stage Enquiry: enquiry',
    ]);
    expect(adopted.writes[1]!.place).toEqual({ pipeline: text('new-builds'), stage: text('enquiry'), again: 'update' });
    expect(adopted.writes[1]!.when).toEqual({ of: { write: 'person', field: 'email' }, test: 'filled' });
  });

  test('keeps what nothing here is called, for the checker to tell', () => {
    expect(wrong(foreign).length).toBeGreaterThan(1);
    expect(wrong(adopted)).toEqual(['unknown-field']);
    expect(adopted.writes[0]!.fills[2]!.field).toBe('shoe_size');
  });

  test('is left as it is where it knows the names already', () => {
    expect(adoptRoute(route, destination)).toEqual({ route, adopted: [] });
    expect(adoptRoute(adopted, destination)).toEqual({ route: adopted, adopted: [] });
  });

  test('finds its tags, lists and owners too', () => {
    const options = (...keys: string[]) => keys.map((key) => ({ key, label: key.replaceAll('-', ' ') }));
    const with_ = (key: string, ...keys: string[]) => ({
      record: 'contact' as const,
      key,
      label: key,
      type: 'several-of' as const,
      builtIn: true,
      required: false,
      options: options(...keys),
    });
    const marked = {
      ...destination,
      fields: [
        ...destination.fields.filter(({ key }) => !['tags', 'lists', 'owner'].includes(key)),
        with_('tags', 'show-stand'),
        with_('lists', 'spring-readers'),
        with_('owner', 'robin-nye'),
      ],
    };
    const result = adoptRoute(
      {
        ...routeOf({ ...person, links: [], owner: { person: 'Robin Nye' } }),
        followUps: [
          { do: 'tag', on: 'person', tags: ['Show stand', 'gone'] },
          { do: 'list', on: 'person', lists: ['SPRING readers'] },
        ],
      },
      marked,
    );
    expect(result.route.writes[0]!.owner).toEqual({ person: 'robin-nye' });
    expect(result.route.followUps).toEqual([
      { do: 'tag', on: 'person', tags: ['show-stand', 'gone'] },
      { do: 'list', on: 'person', lists: ['spring-readers'] },
    ]);
  });
});
