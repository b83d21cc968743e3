import type { RecordKind } from '../diff/record';
import { counted } from '../text';
import { recordWord, type Destination } from './destination';

/** What a workspace has prepared, as far as it tells whether it is ready for submissions. */
export interface Prepared {
  fields: {
    record: RecordKind;
    key: string;
    label: string;
    kept: boolean;
    required: boolean;
    routes: number;
    filled: number;
  }[];
  stages: { pipeline: string; pipelineName: string; stage: string; name: string; open: boolean; reached: boolean }[];
  /** `nobody`: what nobody would get now, in words. */
  routes: { id: string; name: string; live: boolean; problems: string[]; nobody: string[] }[];
  /** Published forms. */
  forms: { key: string; name: string; problems: string[] }[];
  people: { key: string; name: string; active: boolean; teams: number }[];
  intakes: number;
  dealWord?: Destination['dealWord'];
}

/** One thing to look at, and where. */
export interface ReadyItem {
  text: string;
  path: string;
}

/** One question about a workspace, with everything that speaks against a yes. */
export interface ReadyCheck {
  name:
    | 'routes-in-order'
    | 'somebody-takes'
    | 'needed-fields-fed'
    | 'fields-fed'
    | 'stages-reached'
    | 'people-in-teams'
    | 'submissions-arrive';
  question: string;
  /** `stop`: submissions would fail or be lost to sight; `look`: worth a look. */
  weight: 'stop' | 'look';
  items: ReadyItem[];
}

/** Fields that follow from others by themselves. */
const FOLLOWS: ReadonlySet<string> = new Set(['full_name']);

/** Whether a workspace is ready for submissions: every question, the weighty ones first. */
export function readiness({ fields, stages, routes, forms, people, intakes, dealWord }: Prepared): ReadyCheck[] {
  const unfed = fields.filter(({ kept, key, routes: feeding }) => !kept && !FOLLOWS.has(key) && feeding === 0);
  const toField = ({ record, label, filled }: Prepared['fields'][number]): ReadyItem => ({
    text: `${label} of the ${recordWord({ dealWord }, record)}${filled ? `, filled on ${counted(filled, 'record')} by hand` : ', empty everywhere'}`,
    path: `/set-up/fields/${record}`,
  });
  const live = routes.filter((route) => route.live);
  return [
    {
      name: 'submissions-arrive',
      question: 'Does something arrive, and does a route take it?',
      weight: 'stop',
      items: [
        ...(intakes ? [] : [{ text: 'There is no intake yet', path: '/intakes' }]),
        ...(live.length ? [] : [{ text: 'No route is live yet', path: '/routes' }]),
      ],
    },
    {
      name: 'routes-in-order',
      question: 'Do all routes and forms name only what is there?',
      weight: 'stop',
      items: [
        ...routes.map(({ id, ...route }) => ({ ...route, path: `/routes/${id}` })),
        ...forms.map(({ key, ...form }) => ({ ...form, path: `/intakes/${key}/form` })),
      ].flatMap(({ name, problems, path }) =>
        problems.map((problem): ReadyItem => ({ text: `${name}: ${problem}`, path })),
      ),
    },
    {
      name: 'somebody-takes',
      question: 'Is there somebody to get what routes give away?',
      weight: 'stop',
      items: live.flatMap(({ id, name, nobody }) =>
        nobody.map((text): ReadyItem => ({ text: `${name}: ${text}`, path: `/routes/${id}` })),
      ),
    },
    {
      name: 'needed-fields-fed',
      question: 'Is every needed field fed by a route?',
      weight: 'stop',
      items: live.length ? unfed.filter(({ required }) => required).map(toField) : [],
    },
    {
      name: 'fields-fed',
      question: 'Is every other field fed by a route?',
      weight: 'look',
      items: unfed.filter(({ required }) => !required).map(toField),
    },
    {
      name: 'stages-reached',
      question: 'Is every stage reached by something?',
      weight: 'look',
      items: stages
        .filter(({ open, reached }) => open && !reached)
        .map(({ pipeline, pipelineName, name }) => ({
          text: `${name} of ${pipelineName}: no route places there, and nothing ever stood there`,
          path: `/set-up/pipelines/${pipeline}`,
        })),
    },
    {
      name: 'people-in-teams',
      question: 'Is everybody in a team?',
      weight: 'look',
      items: people
        .filter(({ active, teams }) => active && teams === 0)
        .map(({ key, name }) => ({ text: `${name} is in no team`, path: `/set-up/people/${key}` })),
    },
  ];
}
