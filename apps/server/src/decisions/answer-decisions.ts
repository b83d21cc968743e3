import { Inject, Injectable } from '@nestjs/common';
import {
  counted,
  fieldOf,
  optionFor,
  optionsToAdd,
  withTranslation,
  type FieldOption,
  type RecordKind,
} from '@haycart/core';
import type { DecisionLine } from '@haycart/api';
import { FieldsService } from '../fields/fields.service';
import type { Caller } from '../platform/auth/caller';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { RoutesService, type RouteDefinitions } from '../routes/routes.service';
import { FillInService } from '../runs/fill-in.service';
import { SubmissionQueue } from '../submissions/submission-queue';
import { DestinationService } from '../workspaces/destination.service';
import { PeopleService } from '../workspaces/people.service';
import { NO_DETAILS, type DecisionDetails, type DecisionSource, type Verdict } from './decision-source';
import { exampleOf, type Example } from './run-decisions';

interface AnswerLine extends DecisionLine {
  route: RouteDefinitions;
  as: string;
  record: RecordKind;
  field: string;
  label: string;
  options: FieldOption[];
  value: string;
}

/** The id of the decision that a value `u` of a run `r` is about. Capitals do not tell values apart. */
const ID = `'new-answer.' || md5(r.route_id::text || E'\\n' || (u ->> 'as') || E'\\n' || (u ->> 'field') || E'\\n' || lower(u ->> 'value'))`;
/** One row for each value that no option stands for, of each run. */
const VALUES = `select ${ID} as id,
    r.id as run, r.outcome, r.route_id, r.submission_id, r.finished_at, u ->> 'as' as "as", u ->> 'field' as field, u ->> 'value' as value, s.received_at, s.format, s.body, r.summary as text
  from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id cross join lateral jsonb_array_elements(r.unmapped) u
  where r.workspace_id = $1 and r.unmapped is not null and r.outcome in ('written', 'held') and s.state = 'routed'`;
const MOST_GROUPS = 200;
const EXAMPLES = 20;

/** Answers that name no option of the field that they are for. */
@Injectable()
export class AnswerDecisions implements DecisionSource<AnswerLine> {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(FillInService) private readonly fillIns: FillInService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  async lines(tx: WorkspaceTx): Promise<AnswerLine[]> {
    const rows = await tx.statement<{
      id: string;
      route: string;
      as: string;
      field: string;
      value: string;
      count: number;
      at: Date;
    }>(
      'answer_decisions',
      `select v.id, v.route_id as route, v."as", v.field, min(v.value) as value, count(*)::int as count, max(v.received_at) as at from (${VALUES}) v
       left join decision left_alone on left_alone.workspace_id = $1 and left_alone.id = v.id
       where left_alone.at is null or v.finished_at > left_alone.at
       group by 1, 2, 3, 4 order by count desc, at desc limit $2`,
      [tx.workspaceId, MOST_GROUPS],
    );
    if (!rows.length) return [];
    const destination = await this.destinations.load(tx);
    const routes = await this.routes.definitions(tx);
    return rows.flatMap(({ id, route: routeId, as, field, value, count, at }): AnswerLine[] => {
      const route = routes.find((one) => one.id === routeId);
      const write = (route?.published ?? route?.draft)?.writes.find((one) => one.as === as);
      const definition = write && fieldOf(destination, write.record, field);
      if (!route || !write || !definition?.options) return [];
      return [
        {
          id,
          kind: 'new-answer',
          subject: route.name,
          detail: `${definition.label}: “${value}”`,
          count,
          at: at.toISOString(),
          like: `new-answer ${write.record} ${field}`,
          route,
          as,
          record: write.record,
          field,
          label: definition.label,
          options: definition.options.filter(({ retired }) => !retired),
          value,
        },
      ];
    });
  }

  async count(tx: WorkspaceTx): Promise<number> {
    return (await this.lines(tx)).length;
  }

  async details(tx: WorkspaceTx, { id, route, record, label, value, options }: AnswerLine): Promise<DecisionDetails> {
    const rows = await tx.statement<Example>(
      'examples_of_answer',
      `select submission_id, received_at, format, body, text from (${VALUES}) v where v.id = $2 order by received_at desc limit $3`,
      [tx.workspaceId, id, EXAMPLES],
    );
    return {
      ...NO_DETAILS,
      actions: ['means', 'add-option', 'leave'],
      routes: [{ id: route.id, name: route.name }],
      examples: rows.map(exampleOf),
      answer: { record, label, value, options },
    };
  }

  async decide(tx: WorkspaceTx, line: AnswerLine, { action, option }: Verdict, by: Caller['by']): Promise<string> {
    const { record, field, label, value, options } = line;
    if (action === 'means') {
      const chosen = options.find(({ key }) => key === option);
      if (!chosen) throw new ProblemError('refused', `Say which option of ${label} “${value}” means.`);
      await this.#teach(tx, line, chosen, by);
      return `“${value}” means ${chosen.label} now. ${await this.#mend(tx, line, by)}`;
    }
    if (action !== 'add-option')
      throw new ProblemError('refused', 'This answer can be placed, made an option, or left.');
    const definition = fieldOf(await this.destinations.load(tx), record, field)!;
    const [made] = optionsToAdd(definition, [value]);
    if (!made)
      throw new ProblemError(
        'refused',
        `“${value}” cannot be an option of ${label}: its list is full. Take options out that are not used.`,
      );
    await this.fields.addOptions(tx, [{ record, field, option: made }]);
    await this.#teach(tx, line, made, by);
    return `“${value}” is an option of ${label} now. ${await this.#mend(tx, line, by)}`;
  }

  /** Gives the value a line in the route’s table; where there is none, the option learns the word. */
  async #teach(tx: WorkspaceTx, line: AnswerLine, option: FieldOption, by: Caller['by']): Promise<void> {
    const { route, record, field, value } = line;
    const draft = withTranslation(route.draft, line, option.key);
    const published = route.published && withTranslation(route.published, line, option.key);
    if (draft || published) {
      const note = `“${value}” means ${option.label}`;
      await this.routes.rewrite(tx, route.id, { draft, published }, await this.people.nameOf(tx, by), note);
    }
    const options =
      (await this.fields.all(tx)).find((one) => one.record === record && one.key === field)?.options ?? [];
    if (published || optionFor(options, value)?.key === option.key) return;
    await this.fields.change(tx, record, field, {
      options: options.map((one) =>
        one.key === option.key ? { ...one, aliases: [...(one.aliases ?? []), value] } : one,
      ),
    });
  }

  /** What waited goes again, and what was written without the value gets it. */
  async #mend(tx: WorkspaceTx, { id, route, label, value }: AnswerLine, by: Caller['by']): Promise<string> {
    const rows = await tx.statement<{ run: string; submission_id: string; outcome: 'written' | 'held' }>(
      'runs_of_answer',
      `select run, submission_id, outcome from (${VALUES}) v where v.id = $2 order by received_at desc`,
      [tx.workspaceId, id],
    );
    const { published } = (await this.routes.definitions(tx)).find((one) => one.id === route.id)!;
    const written = rows.filter(({ outcome }) => outcome === 'written').map(({ run }) => run);
    const filled =
      published && written.length
        ? await this.fillIns.fillIn(tx, published, written, `Filled in ${label}: “${value}”`, by)
        : 0;
    await tx.statement(
      'answer_placed',
      `update run r set unmapped = (select jsonb_agg(u) from jsonb_array_elements(unmapped) u where ${ID} <> $3)
       where workspace_id = $1 and id = any($2::uuid[])`,
      [tx.workspaceId, written, id],
    );
    const again = await this.queue.runThrough(
      tx,
      rows.filter(({ outcome }) => outcome === 'held').map((row) => row.submission_id),
      route.id,
    );
    const done = [
      ...(again ? [`${counted(again, 'submission')} that waited ${again === 1 ? 'goes' : 'go'} again`] : []),
      ...(filled ? [`it was filled in ${counted(filled, 'record')}`] : []),
    ];
    return done.length ? `${capital(done.join(', and '))}.` : '';
  }
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
