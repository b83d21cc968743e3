import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post, Put } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags, PartialType } from '@nestjs/swagger';
import { MAIL_LIMITS, readTranslations, type MailTemplate, type MailTexts } from '@haycart/core';
import type { MailServerShape } from '@haycart/api';
import {
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { NeedsPerson } from '../../platform/auth/marks';
import { Command, InTransaction, Reads, ThisCommand } from '../../platform/commands/command';
import type { RunningCommand } from '../../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { newId } from '../../platform/new-id';
import { PeopleService } from '../../workspaces/people.service';
import { PerMinute } from '../per-minute';
import { MailServers } from './mail-servers.service';
import { MailTemplates } from './mail-templates.service';
import { MailsService } from './mails.service';

const orNull = ValidateIf((_, value) => value !== null && value !== undefined);

class MailTextsDto {
  @ApiProperty() @IsString() @MaxLength(MAIL_LIMITS.subject) subject: string;
  @ApiProperty() @IsString() @MaxLength(MAIL_LIMITS.text) text: string;
  @ApiPropertyOptional({ nullable: true, type: String }) @orNull @IsString() @MaxLength(MAIL_LIMITS.html) html?:
    string | null;
}

class NewMailTemplateDto extends MailTextsDto {
  @ApiProperty() @IsString() @Length(1, 120) name: string;
  @ApiPropertyOptional({
    type: 'object',
    additionalProperties: { type: 'object', properties: {} },
    description: 'The texts in other languages, by language (BCP 47): subject, text, html.',
  })
  @IsOptional()
  @IsObject()
  translations?: object;
}

class MailTemplateChangeDto extends PartialType(NewMailTemplateDto) {}

class TestMailDto {
  @ApiProperty() @IsString() @Length(1, MAIL_LIMITS.subject) subject: string;
  @ApiProperty() @IsString() @Length(1, MAIL_LIMITS.text) text: string;
  @ApiPropertyOptional({ nullable: true, type: String }) @orNull @IsString() @MaxLength(MAIL_LIMITS.html) html?:
    string | null;
}

class MailSenderDto {
  @ApiProperty() @IsString() @Length(1, 120) fromName: string;
  @ApiProperty() @IsString() @Length(3, 320) fromAddress: string;
  @ApiPropertyOptional({ nullable: true, type: String }) @orNull @IsString() @Length(3, 320) replyTo?: string | null;
}

const SECURITY = ['tls', 'starttls', 'none'] as const;

class MailServerDto extends MailSenderDto {
  @ApiProperty() @IsString() @Length(1, 253) @Matches(/^[^\s\p{Cc}]+$/u) host: string;
  @ApiProperty() @IsInt() @Min(1) @Max(65_535) port: number;
  @ApiProperty({ enum: SECURITY }) @IsIn(SECURITY) security: (typeof SECURITY)[number];
  @ApiPropertyOptional({ nullable: true, type: String }) @orNull @IsString() @Length(1, 320) user?: string | null;
  @ApiPropertyOptional({ nullable: true, type: String, description: 'Stays as it is when absent' })
  @orNull
  @IsString()
  @Length(1, 1_000)
  password?: string | null;
  @ApiPropertyOptional({
    nullable: true,
    type: String,
    description: 'Where mail that cannot be delivered comes back to',
  })
  @orNull
  @IsString()
  @Length(1, 253)
  returnDomain?: string | null;
  @PerMinute() perMinute?: number | null;
}

/** By what mails are written, and by which server they are sent. */
@ApiTags('mail')
@Controller('api/v1')
export class MailController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MailTemplates) private readonly templates: MailTemplates,
    @Inject(MailServers) private readonly servers: MailServers,
    @Inject(MailsService) private readonly mails: MailsService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  @Get('mail-templates')
  @Reads('mail', 'Lists templates of mails')
  all(@ByCaller() { workspaceId }: Caller): Promise<MailTemplate[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.templates.all(tx));
  }

  @Post('mail-templates')
  @Command('mail.add-template', 'Adds a template of a mail')
  @HttpCode(201)
  add(
    @InTransaction() tx: WorkspaceTx,
    @Body() { html = null, translations = {}, ...made }: NewMailTemplateDto,
  ): Promise<MailTemplate> {
    return this.templates.add(tx, { ...made, html, translations: readLanguages(translations) });
  }

  @Patch('mail-templates/:key')
  @Command('mail.change-template', 'Changes a template of a mail')
  change(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Body() { translations, ...change }: MailTemplateChangeDto,
  ): Promise<MailTemplate> {
    const translated = translations && { translations: readLanguages(translations) };
    return this.templates.change(tx, key, { ...(change as Partial<MailTemplate>), ...translated });
  }

  @Delete('mail-templates/:key')
  @Command('mail.remove-template', 'Removes a template of a mail')
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<void> {
    return this.templates.remove(tx, key);
  }

  @Get('mail-server')
  @Reads('mail', 'Says by which server mail is sent')
  async server(@ByCaller() { workspaceId }: Caller): Promise<{ server: MailServerShape | null }> {
    return { server: await this.database.inWorkspace(workspaceId, (tx) => this.servers.shown(tx)) };
  }

  @Put('mail-server')
  @Command('mail.set-server', 'Sets by which server mail is sent')
  @NeedsPerson()
  set(
    @InTransaction() tx: WorkspaceTx,
    @Body() { user = null, replyTo = null, returnDomain = null, perMinute = null, ...given }: MailServerDto,
  ): Promise<MailServerShape> {
    return this.servers.set(tx, { ...given, user, replyTo, returnDomain, perMinute });
  }

  @Delete('mail-server')
  @Command('mail.remove-server', 'Removes the server by which mail is sent')
  @NeedsPerson()
  @HttpCode(204)
  removeServer(@InTransaction() tx: WorkspaceTx): Promise<void> {
    return this.servers.remove(tx);
  }

  @Put('mail-server/senders/:team')
  @Command('mail.set-sender', 'Sets in whose name a team writes')
  @NeedsPerson()
  async setSender(
    @InTransaction() tx: WorkspaceTx,
    @Param('team') team: string,
    @Body() { replyTo = null, ...given }: MailSenderDto,
  ): Promise<MailServerShape> {
    if (!Object.hasOwn(await this.people.teams(tx), team))
      throw new ProblemError('not-found', 'There is no such team.');
    return this.servers.setSender(tx, team, { ...given, replyTo });
  }

  @Delete('mail-server/senders/:team')
  @Command('mail.remove-sender', 'Removes the name in which a team writes')
  @NeedsPerson()
  removeSender(@InTransaction() tx: WorkspaceTx, @Param('team') team: string): Promise<MailServerShape> {
    return this.servers.setSender(tx, team, null);
  }

  /** Sends a mail to whoever asks, at once, to see how it arrives. */
  @Post('mail-server/test')
  @Command('mail.test', 'Sends a test mail to oneself', { takesLong: true })
  @NeedsPerson()
  @HttpCode(200)
  async test(
    @ThisCommand() command: RunningCommand,
    @ByCaller() { workspaceId, by }: Caller,
    @Body() { subject, text, html = null }: TestMailDto,
  ): Promise<{ to: string }> {
    const to = await this.database.inWorkspace(workspaceId, async (tx) => {
      const address = (await this.people.one(tx, (by as { id: string }).id))!.email;
      await command.note(tx, { id: address, name: address });
      return address;
    });
    const tried = await this.mails.send(
      workspaceId,
      { to, subject, text, html, key: newId() },
      AbortSignal.timeout(60_000),
    );
    if (!tried.ok) throw new ProblemError('refused', `The mail was not taken: ${tried.why}`);
    return { to };
  }
}

function readLanguages(given: object): Record<string, MailTexts> {
  const translations = readTranslations(given);
  if (translations) return translations;
  throw new ProblemError('refused', 'The texts in other languages are an object by language: subject, text, html.', [
    { at: '/translations', code: 'wrong-value', message: 'Give each language an object with subject, text and html.' },
  ]);
}
