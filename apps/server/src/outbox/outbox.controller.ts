import { Controller, Get, HttpCode, Inject, Param, Post, Query } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import {
  OUTBOX_STATES,
  type OutboxLine,
  type OutboxShape,
  type OutboxState,
  type Page,
  type SigningShape,
} from '@haycart/api';
import { IsIn, IsOptional, IsString, IsUUID, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { isId, readCursor, readLimit } from '../platform/paging';
import { OutboxService } from './outbox.service';
import { SigningSecrets } from './signing-secrets.service';

class OutboxQuery {
  @ApiPropertyOptional({ enum: OUTBOX_STATES }) @IsOptional() @IsIn(OUTBOX_STATES) state?: OutboxState;
  @ApiPropertyOptional({ description: 'How it is sent, as post' })
  @IsOptional()
  @IsString()
  @Length(1, 50)
  kind?: string;
  @ApiPropertyOptional({ description: 'Where to: an address or a number' })
  @IsOptional()
  @IsString()
  @Length(1, 2_000)
  to?: string;
  @ApiPropertyOptional({ description: 'The id of a run' }) @IsOptional() @IsUUID() run?: string;
  @IsOptional() @IsString() limit?: string;
  @IsOptional() @IsString() after?: string;
}

/** What runs send to the outside. */
@ApiTags('outbox')
@Controller('api/v1')
export class OutboxController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(OutboxService) private readonly outbox: OutboxService,
    @Inject(SigningSecrets) private readonly secrets: SigningSecrets,
  ) {}

  @Get('outbox')
  @Reads('outbox', 'Lists what runs send to the outside, the latest first')
  list(
    @ByCaller() { workspaceId }: Caller,
    @Query() { limit, after, ...filter }: OutboxQuery,
  ): Promise<Page<OutboxLine>> {
    const [most, cursor] = [readLimit(limit), readCursor(after)];
    return this.database.inWorkspace(workspaceId, (tx) => this.outbox.list(tx, filter, most, cursor));
  }

  @Get('outbox-signing')
  @Reads('outbox', 'Shows the secret that signs what is posted')
  signing(@ByCaller() { workspaceId, by }: Caller): Promise<SigningShape> {
    onlyPeople(by);
    return this.database.inWorkspace(workspaceId, async (tx) => ({ secret: await this.secrets.current(tx) }));
  }

  @Post('outbox-signing/replace')
  @Command('outbox.replace-secret', 'Replaces the secret that signs what is posted')
  @HttpCode(200)
  async replace(@InTransaction() tx: WorkspaceTx, @ByCaller() { by }: Caller): Promise<SigningShape> {
    onlyPeople(by);
    return { secret: await this.secrets.replace(tx) };
  }

  @Get('outbox/:id')
  @Reads('outbox', 'Shows something that a run sends')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<OutboxShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.outbox.one(tx, existing(id)));
  }

  @Post('outbox/:id/retry')
  @Command('outbox.retry', 'Sends something again')
  @HttpCode(200)
  retry(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<OutboxShape> {
    return this.outbox.retry(tx, existing(id));
  }

  @Post('outbox/:id/cancel')
  @Command('outbox.cancel', 'Cancels something that was to be sent')
  @HttpCode(200)
  cancel(@InTransaction() tx: WorkspaceTx, @Param('id') id: string): Promise<OutboxShape> {
    return this.outbox.cancel(tx, existing(id));
  }
}

function existing(id: string): string {
  if (!isId(id)) throw new ProblemError('not-found', 'There is nothing with this id in the outbox.');
  return id;
}

function onlyPeople(by: Caller['by']): void {
  if (by.kind !== 'person')
    throw new ProblemError('not-allowed', 'Only a person who is signed in may see the secret that signs posts.');
}
