import { rm } from 'node:fs/promises';
import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Req, Res } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import { LIMITS, newKey } from '@haycart/core';
import type { SessionShape, SignInOptions } from '@haycart/api';
import { IsEmail, IsString, Length } from 'class-validator';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { clearCookie, DEVICE_COOKIE, readCookie, SESSION_COOKIE, setCookie } from '../platform/auth/cookies';
import { Public } from '../platform/auth/marks';
import type { Config } from '../platform/config';
import { secretHash } from '../platform/auth/secret';
import { Command, InTransaction, Open, Reads, ThisCommand } from '../platform/commands/command';
import type { RunningCommand } from '../platform/commands/running-command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Doors } from '../platform/doors';
import { ProblemError } from '../platform/errors/problem-error';
import { CONFIG } from '../platform/tokens';
import { PASSWORD_LENGTH } from './passwords';
import { PeopleService } from './people.service';
import { PersonLinks } from './person-links.service';
import { SessionsService } from './sessions.service';
import { SignInService } from './sign-in.service';
import { FIRST_PIPELINE, WorkspacesService } from './workspaces.service';
import { DemoPeople } from './demo-people';

/** How long a browser is known: a year. */
const DEVICE_SECONDS = 365 * 86_400;

class SignInDto {
  @ApiProperty() @IsEmail() email: string;
  @ApiProperty() @IsString() @Length(1, 200) password: string;
}

class LinkDto {
  @ApiProperty() @IsString() @Length(1, PASSWORD_LENGTH.most) password: string;
}

class DemoSignInDto {
  @ApiProperty() @IsEmail() email: string;
}

class FirstWorkspaceDto {
  @ApiProperty() @IsString() @Length(1, 100) code: string;
  @ApiProperty() @IsString() @Length(2, 80) workspace: string;
  @ApiProperty() @IsString() @Length(2, 2) country: string;
  @ApiProperty() @IsString() @Length(3, 3) currency: string;
  @ApiProperty() @IsString() @Length(2, 80) name: string;
  @ApiProperty() @IsEmail() email: string;
  @ApiProperty() @IsString() @Length(10, 200) password: string;
}

/** Signing in and out, and the very first start. */
@ApiTags('session')
@Controller('api/v1/session')
export class SessionController {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Database) private readonly database: Database,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(WorkspacesService) private readonly workspaces: WorkspacesService,
    @Inject(DemoPeople) private readonly demoPeople: DemoPeople,
    @Inject(Doors) private readonly doors: Doors,
    @Inject(SignInService) private readonly signIns: SignInService,
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(PersonLinks) private readonly links: PersonLinks,
  ) {}

  @Get()
  @Reads('account', 'Tells who is signed in')
  current(@ByCaller() caller: Caller): Promise<SessionShape> {
    return this.database.inWorkspace(caller.workspaceId, async (tx) => {
      const { id, key, name, defaultCountry, defaultCurrency, leadHandling, dealWord } = await this.workspaces.one(tx);
      const person =
        caller.by.kind === 'person'
          ? await this.people.one(tx, caller.by.id)
          : { id: caller.by.id, key: '', name: caller.by.name, email: '' };
      return {
        person: person!,
        workspace: { id, key, name, defaultCountry, defaultCurrency, leadHandling, dealWord },
        demo: this.config.demo,
      };
    });
  }

  @Public()
  @Get('options')
  @Open('Tells in which ways one can sign in')
  async options(): Promise<SignInOptions> {
    return {
      firstStart: !(await this.workspaces.anyExists()),
      demoPeople: this.config.demo ? await this.demoPeople.all() : [],
    };
  }

  @Public()
  @Post()
  @Command('account.sign-in', 'Signs in', { takesLong: true })
  @HttpCode(204)
  async signIn(
    @ThisCommand() command: RunningCommand,
    @Body() { email, password }: SignInDto,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    const device = readCookie(request, DEVICE_COOKIE, this.doors.secure);
    const signedIn = await this.signIns.signIn(email, password, request.ip, device);
    await this.#begin(command, signedIn, request, reply);
    setCookie(reply, DEVICE_COOKIE, signedIn.device, DEVICE_SECONDS, this.doors.secure);
  }

  @Public()
  @Post('demo')
  @Command('account.sign-in-to-demo', 'Signs in to the demo', { takesLong: true })
  @HttpCode(204)
  async demo(
    @ThisCommand() command: RunningCommand,
    @Body() { email }: DemoSignInDto,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    if (!this.config.demo) throw new ProblemError('not-found', 'There is nothing at this address.');
    const [found] = await this.database.gate<{ workspace_id: string; id: string }>('people_called', email);
    if (!found) throw new ProblemError('not-found', 'There is no such person in the demo.');
    await this.#begin(command, { workspaceId: found.workspace_id, personId: found.id }, request, reply);
  }

  @Public()
  @Post('first')
  @Command('account.make-workspace', 'Makes the first workspace', { takesLong: true })
  @HttpCode(204)
  async first(
    @ThisCommand() command: RunningCommand,
    @Body() first: FirstWorkspaceDto,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    if (this.config.setupCode === null || (await this.workspaces.anyExists()))
      throw new ProblemError('not-found', 'There is nothing at this address.');
    const subjects = this.signIns.setUpSubjects(request.ip);
    await this.signIns.refuseWhileWaiting(subjects);
    if (secretHash(first.code.trim()) !== secretHash(this.config.setupCode)) {
      await this.signIns.noteWrong(subjects);
      throw new ProblemError('not-allowed', 'The set-up code is wrong. It was printed when Hay Cart was started.');
    }
    const made = await this.workspaces.addFirst(
      {
        key: newKey(first.workspace, []),
        name: first.workspace,
        defaultCountry: first.country.toUpperCase(),
        defaultCurrency: first.currency.toUpperCase(),
        pipelines: [FIRST_PIPELINE],
      },
      async (tx) => ({ workspaceId: tx.workspaceId, personId: await this.people.add(tx, first) }),
    );
    if (this.config.setupCodeFile) await rm(this.config.setupCodeFile, { force: true });
    await this.#begin(command, made, request, reply);
  }

  /** Whose link to set a password it is. */
  @Public()
  @Get('link/:secret')
  @Open('Tells whose link it is')
  async link(@Param('secret') secret: string): Promise<{ name: string; email: string }> {
    const { name, email } = await this.links.whose(secret);
    return { name, email };
  }

  /** Sets a password by a link, and signs in. */
  @Public()
  @Post('link/:secret')
  @Command('account.set-password', 'Sets a password by a link', { takesLong: true })
  @HttpCode(204)
  async useLink(
    @ThisCommand() command: RunningCommand,
    @Param('secret') secret: string,
    @Body() { password }: LinkDto,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    await this.#begin(command, await this.links.use(secret, password), request, reply);
  }

  @Delete()
  @Command('account.sign-out', 'Signs out')
  @HttpCode(204)
  async signOut(
    @InTransaction() tx: WorkspaceTx,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    const secret = readCookie(request, SESSION_COOKIE, this.doors.secure);
    if (secret) await this.sessions.signOut(tx, secret);
    clearCookie(reply, SESSION_COOKIE, this.doors.secure);
  }

  async #begin(
    command: RunningCommand,
    { workspaceId, personId }: { workspaceId: string; personId: string },
    request: FastifyRequest,
    reply: FastifyReply,
  ): Promise<void> {
    const secret = await this.database.inWorkspace(workspaceId, async (tx) => {
      await command.note(tx, undefined, { kind: 'person', id: personId });
      return this.sessions.begin(tx, personId, request.headers['user-agent'] ?? '');
    });
    setCookie(reply, SESSION_COOKIE, secret, LIMITS.session.most * 86_400, this.doors.secure);
  }
}
