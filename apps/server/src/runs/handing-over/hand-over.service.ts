import { Inject, Injectable } from '@nestjs/common';
import { Counters, countersOfTeam, emptyDiff, handOver, type HandedTo, type NamedOwner } from '@haycart/core';
import type { DoneEdit, HandOverPlan } from '@haycart/api';
import type { Caller } from '../../platform/auth/caller';
import type { WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { DestinationService } from '../../destination/destination.service';
import { TasksService, type OpenTask } from '../../records/activities/tasks.service';
import { AssignmentsService } from '../../records/assignments/assignments.service';
import { RecordActs } from '../../records/edits/record-acts.service';
import { HeldRecords } from '../../records/held-records.service';
import { RecordsService } from '../../records/records.service';
import { PeopleService } from '../../workspaces/people.service';
import { CountersService } from '../counters.service';

/** So much goes to others in one act. */
const MOST = 5_000;

/** What somebody looks after that is open: it goes to others, by the rule that routes go by, and what is to be done goes with it. */
@Injectable()
export class HandOverService {
  constructor(
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(TasksService) private readonly tasks: TasksService,
    @Inject(HeldRecords) private readonly held: HeldRecords,
    @Inject(RecordActs) private readonly acts: RecordActs,
    @Inject(AssignmentsService) private readonly assignments: AssignmentsService,
    @Inject(CountersService) private readonly counters: CountersService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  /** Who would get how much; nothing is written, and no turn is taken. */
  async rehearse(tx: WorkspaceTx, key: string, rule: NamedOwner): Promise<HandOverPlan> {
    const { handed, tasks } = await this.#plan(tx, key, rule, false);
    const people = new Map<string | null, HandOverPlan['people'][number]>();
    const lineOf = (person: string | null) => {
      const line = people.get(person) ?? { person, leads: 0, deals: 0, tasks: 0 };
      people.set(person, line);
      return line;
    };
    for (const { person, kind } of handed) lineOf(person)[kind === 'lead' ? 'leads' : 'deals'] += 1;
    for (const { to } of tasks) lineOf(to).tasks += 1;
    const size = (line: HandOverPlan['people'][number]) => line.leads + line.deals + line.tasks;
    return { people: [...people.values()].sort((a, b) => size(b) - size(a)) };
  }

  /** Does it, as one act; taking that back gives the records back, but not what is to be done about them. */
  async handOver(tx: WorkspaceTx, key: string, rule: NamedOwner, by: Caller['by']): Promise<DoneEdit> {
    const { handed, tasks, advance, at, held } = await this.#plan(tx, key, rule, true);
    const given = handed.flatMap((one) => (one.person === null ? [] : [{ ...one, person: one.person }]));
    const diff = emptyDiff();
    for (const { kind, id, person } of given)
      diff.changed[id] = { kind, fields: { owner: { before: key, after: person } } };
    const name = (await this.people.choices(tx)).find((one) => one.key === key)?.name ?? key;
    const done = await this.acts.apply(tx, held, [], { diff, text: `Gave what ${name} looked after to others` }, by);
    await this.counters.advance(tx, advance);
    await this.assignments.keep(
      tx,
      given.map(({ kind, ...one }) => ({
        ...one,
        record: kind,
        why: `${one.why}, as ${name} gave it up`,
        attempt: null,
        at,
        due: null,
      })),
    );
    for (const person of new Set(tasks.map(({ to }) => to)))
      if (person !== null)
        await this.tasks.give(
          tx,
          tasks.filter(({ to }) => to === person).map(({ id }) => id),
          person,
        );
    return done;
  }

  async #plan(tx: WorkspaceTx, key: string, rule: NamedOwner, forGood: boolean) {
    const destination = await this.destinations.load(tx);
    const at = new Date();
    const records = await this.records.openOf(tx, key, MOST + 1);
    if (records.length > MOST)
      throw new ProblemError(
        'refused',
        `At most ${MOST.toLocaleString('en-GB')} records are given to others at once. Change the owner of some in their list first.`,
      );
    // Records are locked before counters, as runs do; what went to somebody else meanwhile stays with them.
    const ids = records.map(({ id }) => id);
    const held = forGood ? (await this.held.byAnyIdThere(tx, ids)).filter(({ values }) => values.owner === key) : [];
    const theirs = new Set(forGood ? held.map(({ id }) => id) : ids);
    const names = 'team' in rule ? countersOfTeam(rule, destination, at.toISOString()) : [];
    const counters = forGood ? await this.counters.hold(tx, names) : new Counters(await this.counters.read(tx, names));
    const ground = {
      destination,
      counters,
      submission: { receivedAt: at.toISOString(), origin: undefined },
      without: [key],
    };
    const { handed, advance } = handOver(
      records.filter(({ id }) => theirs.has(id)),
      rule,
      ground,
    );
    // A task goes with its record; of other records it takes its turn.
    const open = await this.tasks.openTasksOf(tx, key, MOST);
    const owners = new Map(handed.map(({ id, person }) => [id, person]));
    const others = handOver(
      open.filter(({ record }) => !owners.has(record)).map(({ id, kind }) => ({ id, kind })),
      rule,
      ground,
    );
    for (const [name, by] of Object.entries(others.advance)) advance[name] = (advance[name] ?? 0) + by;
    return { handed, advance, at, held, tasks: tasksTo(open, owners, others.handed) };
  }
}

function tasksTo(
  open: readonly OpenTask[],
  owners: ReadonlyMap<string, string | null>,
  others: readonly HandedTo[],
): { id: string; to: string | null }[] {
  const turns = new Map(others.map(({ id, person }) => [id, person]));
  return open.map(({ id, record }) => ({ id, to: owners.get(record) ?? turns.get(id) ?? null }));
}
