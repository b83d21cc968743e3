import { Inject, Injectable } from '@nestjs/common';
import { confirmWords, followFields, wouldDo, type Plan } from '@haycart/core';
import { DestinationService } from '../destination/destination.service';
import { FormPages, type AnsweredPage, type Said } from '../forms/form-pages.service';
import { IntakesService } from '../intakes/intakes.service';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { oneAtATime } from '../platform/database/one-at-a-time';
import { RoutesService } from '../routes/routes.service';
import { AskedService, type AskedLine } from '../runs/holds/asked.service';
import { RunsService } from '../runs/runs.service';
import { SubmissionsService } from '../submissions/submissions.service';
import { PeopleService } from '../workspaces/people.service';
import { approvalForm } from './approval-html';
import { NO_SUCH_LINK } from './no-such-link';

const LONGEST_NOTE = 1_000;

/** The pages on which somebody answers who was asked by mail. */
@Injectable()
export class AskedPages {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(AskedService) private readonly asked: AskedService,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(FormPages) private readonly pages: FormPages,
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(RunsService) private readonly runs: RunsService,
    @Inject(SubmissionsService) private readonly submissions: SubmissionsService,
  ) {}

  open(secret: string, languages?: string): Promise<AnsweredPage> {
    return this.#with(secret, languages, (tx, asked) => this.#page(tx, asked, languages));
  }

  /** Takes an answer, once: whoever answers later, or another way, is told what was answered. */
  answer(secret: string, body: unknown, languages?: string): Promise<AnsweredPage> {
    const { answer, note } = (body ?? {}) as Record<string, unknown>;
    return this.#with(secret, languages, async (tx, { submission, route }) => {
      await oneAtATime(tx, `asked ${submission} ${route}`);
      const asked = (await this.asked.bySecret(tx, secret))!;
      const { state, address, person } = asked;
      if (state !== 'open') return this.#page(tx, asked, languages);
      if (asked.for === 'confirmation') await this.asked.answer(tx, asked, { approved: true, by: address, note: '' });
      else {
        const by = await this.#colleague(tx, person);
        if (!by || (answer !== 'yes' && answer !== 'no')) return this.#page(tx, asked, languages);
        const why = typeof note === 'string' ? note.trim().slice(0, LONGEST_NOTE) : '';
        await this.asked.answer(tx, asked, { approved: answer === 'yes', by, note: why });
      }
      return this.#page(tx, (await this.asked.bySecret(tx, secret))!, languages);
    });
  }

  async #with(
    secret: string,
    languages: string | undefined,
    work: (tx: WorkspaceTx, asked: AskedLine) => Promise<AnsweredPage>,
  ): Promise<AnsweredPage> {
    const workspaceId = secret.length > 100 ? null : await this.asked.workspaceOf(secret);
    if (!workspaceId) return this.pages.say(null, null, languages, () => NO_SUCH_LINK);
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const asked = await this.asked.bySecret(tx, secret);
      return asked ? work(tx, asked) : this.pages.say(null, null, languages, () => NO_SUCH_LINK);
    });
  }

  #page(tx: WorkspaceTx, asked: AskedLine, languages: string | undefined): Promise<AnsweredPage> {
    return asked.for === 'confirmation' ? this.#confirmation(tx, asked, languages) : this.#approval(tx, asked);
  }

  /** In the look of the visitor's form, and in their language. */
  async #confirmation(tx: WorkspaceTx, asked: AskedLine, languages: string | undefined): Promise<AnsweredPage> {
    const { intake } = await this.submissions.one(tx, asked.submission);
    const { form } = await this.intakes.one(tx, intake.key);
    return this.pages.say(tx, form, languages, (language) => {
      const words = confirmWords(language, asked.address);
      if (asked.state === 'open') return { title: words.title, text: words.text, press: words.button };
      if (asked.state === 'answered') return { title: words.thanks, text: words.confirmed };
      return { status: 410, title: words.late, text: words.lateText };
    });
  }

  async #approval(tx: WorkspaceTx, asked: AskedLine): Promise<AnsweredPage> {
    const said = (about: Said) => this.pages.say(tx, null, 'en', () => about);
    const { answer, state, person } = asked;
    if (answer)
      return said({
        title: answer.approved ? 'It is written' : 'It is not written',
        text: `${answer.by} said ${answer.approved ? 'yes' : 'no'} on ${dayOf(answer.at)}.`,
      });
    if (state === 'gone')
      return said({
        status: 410,
        title: 'Nobody waits for an answer any more',
        text: 'It was settled in another way.',
      });
    if (state === 'expired')
      return said({
        status: 410,
        title: 'This link does not work any more',
        text: 'It still waits: sign in and find it in To decide.',
      });
    const name = await this.#colleague(tx, person);
    if (!name)
      return said({
        status: 410,
        title: 'This link does not work any more',
        text: 'It was for somebody who does not work here now. A colleague finds it in To decide.',
      });
    const submission = await this.submissions.one(tx, asked.submission);
    const { form } = await this.intakes.one(tx, submission.intake.key);
    const run = submission.runs.find(({ route }) => route.id === asked.route);
    const plan = run && (await this.runs.one(tx, run.id)).plan;
    const { name: route } = await this.routes.one(tx, asked.route);
    const prepared = await this.destinations.load(tx);
    return said({
      title: `May ${route} write what ${submission.who || submission.email || 'somebody'} sent?`,
      text: `You answer as ${name}. Nothing of it is written before.`,
      more: approvalForm({
        would: plan ? wouldDo(plan as Plan, prepared) : [],
        submission,
        form: form && followFields(form, prepared.fields),
      }),
    });
  }

  /** The name of a colleague; `null` of one who does not work here any more. */
  async #colleague(tx: WorkspaceTx, key: string | null): Promise<string | null> {
    const people = await this.people.choices(tx);
    return people.find((one) => one.key === key && one.active)?.name ?? null;
  }
}

function dayOf(at: Date): string {
  return (
    new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short', timeZone: 'UTC' }).format(at) + ' UTC'
  );
}
