import { Controller, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { EntryLinkShape, EntryShape } from '@haycart/api';
import { isJsonObject, whoAnswered } from '@haycart/core';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Public } from '../platform/auth/marks';
import { Command, InTransaction, Open } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { IntakesService } from '../intakes/intakes.service';
import { SubmissionsService } from '../submissions/submissions.service';
import { EntryLinks } from './entry-links.service';

const SHOWN = 10;

/** Quick entry: what colleagues hear on the phone goes the same way as what arrives by itself. */
@ApiTags('forms')
@Controller('api/v1')
export class EntryController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(EntryLinks) private readonly links: EntryLinks,
    @Inject(IntakesService) private readonly intakes: IntakesService,
    @Inject(SubmissionsService) private readonly submissions: SubmissionsService,
  ) {}

  /** The caller's own link into a form. */
  @Post('forms/:id/entry-link')
  @Command('forms.make-entry-link', 'Makes one’s own link into a form, or gives the one that is there')
  @HttpCode(200)
  async link(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
  ): Promise<EntryLinkShape> {
    return this.links.of(tx, await this.#form(tx, id), personOf(caller));
  }

  @Post('forms/:id/entry-link/renew')
  @Command('forms.renew-entry-link', 'Makes a new link into a form; the one before ends')
  @HttpCode(200)
  async renew(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
  ): Promise<EntryLinkShape> {
    return this.links.renew(tx, await this.#form(tx, id), personOf(caller));
  }

  /** The form that a link leads into, and what became of what was entered by it. It needs no signing in. */
  @Public()
  @Get('entry/:secret')
  @Open('Shows a form and what was entered by a link')
  async entry(@Param('secret') secret: string): Promise<EntryShape> {
    const holder = await this.links.holder(secret);
    if (!holder)
      throw new ProblemError(
        'entry-link',
        'This entry link does not work, or not any more. Sign in and open quick entry to get a new one.',
      );
    return this.database.inWorkspace(holder.workspaceId, async (tx) => {
      const { id, key, name, form, slug, state } = await this.intakes.one(tx, holder.intakeId);
      const latest = await this.submissions.entered(tx, id, holder.person.key, SHOWN);
      return {
        form: { key, name, title: form?.title ?? name, address: `/f/${slug}`, state },
        person: holder.person,
        latest: latest.map((one) => ({
          id: one.id,
          receivedAt: one.receivedAt,
          who: form && isJsonObject(one.payload) ? whoAnswered(form, one.payload) : one.who || one.email,
          state: one.state,
          runs: one.runs.map(({ outcome, summary }) => ({ outcome, summary })),
        })),
      };
    });
  }

  /** @throws ProblemError 404 where an intake is no form. */
  async #form(tx: WorkspaceTx, id: string): Promise<string> {
    const { id: intakeId, kind } = await this.intakes.one(tx, id);
    if (kind !== 'form') throw new ProblemError('not-found', 'This intake is no form.');
    return intakeId;
  }
}

function personOf({ by }: Caller): string {
  if (by.kind === 'token')
    throw new ProblemError('not-allowed', 'An entry link belongs to a person; a token has none.');
  return by.id;
}
