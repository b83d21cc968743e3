import { SOURCE_SPLIT_INTAKE, SOURCE_SPLIT_TEAM } from '@haycart/api';
import { canGroupBy, listedFields, type Destination, type FieldDefinition, type Team } from '@haycart/core';
import { ProblemError } from '../../platform/errors/problem-error';
import type { Values } from '../../platform/database/values';
import { groupedBy } from '../../records/lists/record-lists.service';

/** What the first rows of a report go by: the intake, the team of a deal's owner, or a field of a kind of record. */
export type Split = typeof SOURCE_SPLIT_INTAKE | TeamSplit | FieldDefinition;

/** By the team of the owner. An owner in several teams counts in the first of them. */
export interface TeamSplit {
  record: 'deal';
  teams: Readonly<Record<string, Team>>;
}

/** The kinds of record whose fields rows can go by. A lead has the value of its contact or company. */
const SPLIT_KINDS = ['deal', 'contact', 'company'] as const;

/** Reads `intake`, `team`, `deal.pipeline`, `company.size` and so on. @throws ProblemError when records cannot be counted by it. */
export function readSplit(text: string | undefined, { fields, teams = {} }: Destination): Split | null {
  if (text === undefined) return null;
  if (text === SOURCE_SPLIT_INTAKE) return text;
  if (text === SOURCE_SPLIT_TEAM) return { record: 'deal', teams };
  const [record, key] = [text.slice(0, text.indexOf('.')), text.slice(text.indexOf('.') + 1)];
  const kind = SPLIT_KINDS.find((one) => one === record);
  const field = kind && listedFields(kind, fields).find((one) => one.key === key);
  if (field && canGroupBy(field) && field.type !== 'several-of') return field;
  throw new ProblemError('refused', `A report cannot be told apart by “${text}”.`);
}

/** Joins the id of a record with its value of the split, as `part.value`. */
export function joinedRecords(split: Split, id: string, values: Values): string {
  return `left join (${split === SOURCE_SPLIT_INTAKE ? FIRST_INTAKES : valuesOf(split, values)}) part on part.id = ${id}`;
}

/** Joins the id of a submission with its value of the split, as `part.value`. */
export function joinedSubmissions(split: Split, id: string, values: Values): string {
  if (split === SOURCE_SPLIT_INTAKE)
    return `left join (select m.id, i.key as value from submission m join intake i on i.workspace_id = m.workspace_id and i.id = m.intake_id
      where m.workspace_id = $1) part on part.id = ${id}`;
  return `left join (select distinct on (t.visit_id) t.visit_id as id, p.value from touch t join (${valuesOf(split, values)}) p on p.id = t.record_id
    where t.workspace_id = $1 order by t.visit_id, p.value) part on part.id = ${id}`;
}

/** The intake of the first submission that touched each record. */
const FIRST_INTAKES = `select distinct on (t.record_id) t.record_id as id, i.key as value
  from touch t join submission m on m.workspace_id = t.workspace_id and m.id = t.visit_id
  join intake i on i.workspace_id = m.workspace_id and i.id = m.intake_id where t.workspace_id = $1 order by t.record_id, m.received_at, m.id`;

function valuesOf(split: TeamSplit | FieldDefinition, values: Values): string {
  return 'teams' in split ? teamsOfOwners(split, values) : fieldValues(split, values);
}

function teamsOfOwners({ teams }: TeamSplit, values: Values): string {
  const members = Object.entries(teams).flatMap(([team, { people }]) => people.map((owner) => [owner, team] as const));
  const owners = new Map(members.toReversed());
  return `select d.id, t.team as value from deal d
    join unnest(${values.add([...owners.keys()], 'text[]')}, ${values.add([...owners.values()], 'text[]')}) t (owner, team) on t.owner = d.owner
    where d.workspace_id = $1`;
}

/** The value of each record itself, or of the first record of the kind that it is linked with; of a company, also through a contact. */
function fieldValues(field: FieldDefinition, values: Values): string {
  const [, value] = groupedBy(field, values);
  const { record } = field;
  const linkedTo = `join ${record} r on r.workspace_id = l.workspace_id`;
  const ways = [
    `select r.id, ${value} as value, 0 as far, r.created_at as at, r.id as other from ${record} r where r.workspace_id = $1`,
    `select l.from_id, ${value}, 1, l.at, r.id from record_link l ${linkedTo} and r.id = l.to_id where l.workspace_id = $1 and l.to_kind = '${record}'`,
    ...(record === 'company'
      ? [
          `select l.from_id, ${value}, 2, c.at, r.id from record_link l
           join record_link c on c.workspace_id = l.workspace_id and c.from_id = l.to_id and c.to_kind = 'company' ${linkedTo} and r.id = c.to_id
           where l.workspace_id = $1 and l.to_kind = 'contact'`,
        ]
      : []),
  ];
  return `select distinct on (id) id, value from (${ways.join(' union all ')}) w order by id, far, at, other`;
}
