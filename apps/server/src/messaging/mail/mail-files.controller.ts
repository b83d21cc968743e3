import { Controller, Delete, Get, HttpCode, Inject, Param, Post, Put, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { LIMITS, type LibraryFile } from '@haycart/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction, Reads, ThisCommand } from '../../platform/commands/command';
import type { RunningCommand } from '../../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { receiveFile } from '../../platform/receive-file';
import { sendFile, type KeptFile } from '../../platform/send-file';
import { MailFiles, noFile } from './mail-files.service';

/** The files that mails can have attached. */
@ApiTags('mail')
@Controller('api/v1/mail-files')
export class MailFilesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(MailFiles) private readonly files: MailFiles,
  ) {}

  @Get()
  @Reads('mail', 'Lists the files that mails can have attached')
  all(@ByCaller() { workspaceId }: Caller): Promise<LibraryFile[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.files.all(tx));
  }

  @Get(':key')
  @Reads('mail', 'Gives a file that mails can have attached')
  async one(@ByCaller() { workspaceId }: Caller, @Param('key') key: string, @Res() reply: FastifyReply): Promise<void> {
    const file = await this.database.inWorkspace(workspaceId, (tx) => this.files.one(tx, key));
    if (!file) throw noFile(key);
    sendFile(reply, file);
  }

  @Post()
  @Command('mail.add-file', 'Adds a file that mails can have attached', { takesLong: true })
  @HttpCode(201)
  @ApiConsumes('multipart/form-data')
  add(
    @ThisCommand() command: RunningCommand,
    @ByCaller() caller: Caller,
    @Req() request: FastifyRequest,
  ): Promise<LibraryFile> {
    return this.#receive(command, caller, request, (tx, file) => this.files.add(tx, file));
  }

  @Put(':key')
  @Command('mail.replace-file', 'Replaces a file that mails can have attached', { takesLong: true })
  @ApiConsumes('multipart/form-data')
  replace(
    @ThisCommand() command: RunningCommand,
    @ByCaller() caller: Caller,
    @Param('key') key: string,
    @Req() request: FastifyRequest,
  ): Promise<LibraryFile> {
    return this.#receive(command, caller, request, (tx, file) => this.files.replace(tx, key, file));
  }

  @Delete(':key')
  @Command('mail.remove-file', 'Removes a file that mails can have attached')
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<void> {
    return this.files.remove(tx, key);
  }

  async #receive(
    command: RunningCommand,
    { workspaceId }: Caller,
    request: FastifyRequest,
    keep: (tx: WorkspaceTx, file: KeptFile) => Promise<LibraryFile>,
  ): Promise<LibraryFile> {
    const file = await receiveFile(request, LIMITS.mailFile.most);
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const kept = await keep(tx, file);
      await command.note(tx, { id: kept.key, name: kept.name });
      return kept;
    });
  }
}
