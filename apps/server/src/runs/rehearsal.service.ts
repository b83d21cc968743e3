import { Inject, Injectable } from '@nestjs/common';
import {
  checkPayload,
  Counters,
  isJsonObject,
  lookupsFor,
  rehearse,
  readVisit,
  type JsonValue,
  type Lookups,
  type Submission,
} from '@haycart/core';
import type { KnownShape, Rehearsal } from '@haycart/api';
import type { WorkspaceTx } from '../platform/database/database';
import { ProblemError, problemsAt } from '../platform/errors/problem-error';
import { isId } from '../platform/paging';
import { RecordsService } from '../records/records.service';
import { readPlannable } from '../routes/read-definition';
import { RoutesService } from '../routes/routes.service';
import type { QueuedSubmission } from '../submissions/submission-queue';
import { CountersService } from './counters.service';
import { readSubmission } from './route-batch';

/** What is rehearsed: a stored submission, or a payload that somebody made up. */
export interface Sample {
  submissionId?: string | undefined;
  payload?: JsonValue | undefined;
  visit?: JsonValue | undefined;
}

/** Plans without doing: by the same code and on the same records as live, and nothing is written. */
@Injectable()
export class RehearsalService {
  constructor(
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(RecordsService) private readonly records: RecordsService,
    @Inject(CountersService) private readonly counters: CountersService,
  ) {}

  async rehearse(tx: WorkspaceTx, definition: unknown, sample: Sample): Promise<Rehearsal> {
    const surroundings = await this.routes.surroundings(tx);
    const { destination } = surroundings;
    const route = readPlannable(definition);
    const submission = await this.submission(tx, sample, route.from[0] ?? '');
    const lookups = lookupsFor(route, submission, destination);
    const known = await this.records.look(tx, lookups, destination);
    const counters = new Counters(await this.counters.read(tx, lookups.counters));
    const plan = rehearse(route, submission, known, surroundings, counters);
    const ids = plan.writes.flatMap(({ id, linked, match }) => [
      ...(id ? [id] : []),
      ...linked,
      ...(match.candidates ?? []).map((candidate) => candidate.id),
    ]);
    return { ...plan, names: await this.#names(tx, ids) };
  }

  /** What planning must know of existing records, for whoever plans elsewhere with the same code. */
  async known(tx: WorkspaceTx, lookups: Lookups): Promise<KnownShape> {
    const { destination } = await this.routes.surroundings(tx);
    const known = await this.records.look(tx, lookups, destination);
    const records = known.all();
    return {
      records,
      links: known.links(),
      counters: await this.counters.read(tx, lookups.counters),
      names: await this.#names(
        tx,
        records.map(({ id }) => id),
      ),
    };
  }

  /** What is rehearsed, read: a stored submission or one made up, as if it arrived now. */
  async submission(tx: WorkspaceTx, { submissionId, payload, visit }: Sample, intake: string): Promise<Submission> {
    if (submissionId !== undefined) return this.#stored(tx, submissionId);
    if (payload === undefined) throw new ProblemError('refused', 'Give a payload or a submissionId to rehearse with.');
    const problem = checkPayload(payload);
    if (problem) throw new ProblemError('refused', problem.text, problemsAt([problem], '/payload'));
    const handedOver = visit ?? (isJsonObject(payload) ? payload._visit : undefined);
    return {
      id: 'rehearsal',
      intake,
      receivedAt: new Date().toISOString(),
      payload: payload as Submission['payload'],
      visit: readVisit({ handedOver }),
    };
  }

  async #stored(tx: WorkspaceTx, id: string): Promise<Submission> {
    const [row] = isId(id)
      ? await tx.statement<QueuedSubmission & { key: string }>(
          'rehearsed',
          `select s.*, i.key from submission s join intake i on i.workspace_id = s.workspace_id and i.id = s.intake_id where s.workspace_id = $1 and s.id = $2`,
          [tx.workspaceId, id],
        )
      : [];
    if (!row) throw new ProblemError('not-found', 'There is no such submission.');
    const read = readSubmission(row, row.key);
    if (!read.ok) throw new ProblemError('refused', `This submission cannot be read: ${read.problem.text}`);
    return read.submission;
  }

  async #names(tx: WorkspaceTx, ids: readonly string[]): Promise<Record<string, string>> {
    return Object.fromEntries(
      [...(await this.records.named(tx, ids.filter(isId)))].map(([id, { kind, number, name }]) => [
        id,
        `${kind} ${number} ${name}`,
      ]),
    );
  }
}
