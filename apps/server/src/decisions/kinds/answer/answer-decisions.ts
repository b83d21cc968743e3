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
import { FieldsService } from '../../../fields/fields.service';
import type { Caller } from '../../../platform/auth/caller';
import type { WorkspaceTx } from '../../../platform/database/database';
import { ProblemError } from '../../../platform/errors/problem-error';
import { RoutesService, type RouteDefinitions } from '../../../routes/routes.service';
import { FillInService } from '../../../runs/fill-in.service';
import { SubmissionQueue } from '../../../submissions/submission-queue';
import { DestinationService } from '../../../destination/destination.service';
import { PeopleService } from '../../../workspaces/people.service';
import {
  LEAVE,
  MOST_COUNTED,
  type AskedLines,
  lineOf,
  type DecisionDetails,
  type DecisionKind,
  type KindOfLine,
  type Verdict,
  type WaitingLine,
} from '../decision-kind';
import { exampleOf, type Example } from '../examples';

interface AnswerLine extends WaitingLine {
  route: RouteDefinitions;
  as: string;
  record: RecordKind;
  field: string;
  label: string;
  options: FieldOption[];
  value: string;
}

const KIND: KindOfLine = {
  kind: 'new-answer',
  title: 'New answer',
  rank: 70,
  about: ({ subject, detail }) => `${detail}, ${subject}`,
};

/** The id of the decision that a value `u` of a run `r` is about. Capitals do not tell values apart. */
const ID = `'new-answer.' || md5(r.route_id::text || E'\\n' || (u ->> 'as') || E'\\n' || (u ->> 'field') || E'\\n' || lower(u ->> 'value'))`;
/** One row for each value that no option stands for, of each run. */
const VALUES = `select ${ID} as id,
    r.id as run, r.outcome, r.route_id, r.submission_id, r.finished_at, u ->> 'as' as "as", u ->> 'field' as field, u ->> 'value' as value, s.received_at, s.format, s.body, r.summary as text
  from run r join submission s on s.workspace_id = r.workspace_id and s.id = r.submission_id cross join lateral jsonb_array_elements(r.unmapped) u
  where r.workspace_id = $1 and r.unmapped is not null and r.outcome in ('written', 'held') and s.state = 'routed'`;
const EXAMPLES = 20;

/** Answers that name no option of the field that they are for. */
@Injectable()
export class AnswerDecisions implements DecisionKind<AnswerLine> {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(FieldsService) private readonly fields: FieldsService,
    @Inject(FillInService) private readonly fillIns: FillInService,
    @Inject(SubmissionQueue) private readonly queue: SubmissionQueue,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  async lines(tx: WorkspaceTx, { most, id: only }: AskedLines): Promise<AnswerLine[]> {
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
       where (left_alone.at is null or v.finished_at > left_alone.at) and ($3::text is null or v.id = $3)
       group by 1, 2, 3, 4 order by count desc, at desc limit $2`,
      [tx.workspaceId, most, only ?? null],
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
          ...lineOf(KIND, {
            id,
            subject: route.name,
            detail: `${definition.label}: “${value}”`,
            count,
            at: at.toISOString(),
            like: `new-answer ${write.record} ${field}`,
          }),
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
    return (await this.lines(tx, { most: MOST_COUNTED })).length;
  }

  async details(tx: WorkspaceTx, line: AnswerLine): Promise<DecisionDetails> {
    const { id, route, record, label, value, options } = line;
    const rows = await tx.statement<Example>(
      'examples_of_answer',
      `select submission_id, received_at, format, body, text from (${VALUES}) v where v.id = $2 order by received_at desc limit $3`,
      [tx.workspaceId, id, EXAMPLES],
    );
    return {
      ...answerWords(line),
      choices: [{ action: 'add-option', label: 'Make it an option', key: 'o' }, LEAVE],
      things: [{ kind: 'route', id: route.id, name: route.name }],
      // Each would say the same.
      examples: rows.map((row) => exampleOf({ ...row, text: '' })),
      view: { as: 'answer', record, label, value, options },
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
  async #mend(tx: WorkspaceTx, line: AnswerLine, by: Caller['by']): Promise<string> {
    const { id, route, label, value } = line;
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
    await this.fillIns.placed(tx, written, line);
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

/** What a decision about an answer says. */
export function answerWords({
  subject,
  label,
  value,
  count,
}: Pick<AnswerLine, 'subject' | 'label' | 'value' | 'count'>) {
  return {
    question: `What does “${value}” mean?`,
    story: `${subject} got it for ${label}, which has no such option. It came ${count === 1 ? 'once' : `${count} times`}.`,
    consequence: 'What waits goes again, and what was written without it gets the value.',
  };
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
