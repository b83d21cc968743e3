import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { SessionShape, SignInOptions } from '@haycart/api';
import { IsEmail, IsString, Length } from 'class-validator';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { SESSION_COOKIE } from '../platform/auth/auth.guard';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Public } from '../platform/auth/public';
import type { Config } from '../platform/config';
import { Database } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { CONFIG } from '../platform/tokens';
import { PeopleService } from './people.service';
import { FIRST_PIPELINE, WorkspacesService } from './workspaces.service';
import { DemoPeople } from './demo-people';

class SignInDto {
  @ApiProperty() @IsEmail() email: string;
  @ApiProperty() @IsString() @Length(1, 200) password: string;
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
  ) {}

  @Get()
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
  async options(): Promise<SignInOptions> {
    return {
      firstStart: !(await this.workspaces.anyExists()),
      demoPeople: this.config.demo ? await this.demoPeople.all() : [],
    };
  }

  @Public()
  @Post()
  @HttpCode(204)
  async signIn(
    @Body() { email, password }: SignInDto,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    setCookie(reply, await this.people.signIn(email, password, request.ip));
  }

  @Public()
  @Post('demo')
  @HttpCode(204)
  async demo(@Body() { email }: DemoSignInDto, @Res({ passthrough: true }) reply: FastifyReply): Promise<void> {
    if (!this.config.demo) throw new ProblemError('not-found', 'There is nothing at this address.');
    setCookie(reply, await this.people.signInAs(email));
  }

  @Public()
  @Post('first')
  @HttpCode(204)
  async first(@Body() first: FirstWorkspaceDto, @Res({ passthrough: true }) reply: FastifyReply): Promise<void> {
    if (this.config.setupCode === null || (await this.workspaces.anyExists()))
      throw new ProblemError('not-found', 'There is nothing at this address.');
    if (first.code !== this.config.setupCode)
      throw new ProblemError('not-allowed', 'The set-up code is wrong. It was printed when Hay Cart was started.');
    const key =
      first.workspace
        .toLowerCase()
        .normalize('NFKD')
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'workspace';
    const made = await this.workspaces.add(
      {
        key,
        name: first.workspace,
        defaultCountry: first.country.toUpperCase(),
        defaultCurrency: first.currency.toUpperCase(),
        pipelines: [FIRST_PIPELINE],
      },
      async (tx) => ({ workspaceId: tx.workspaceId, personId: await this.people.add(tx, first) }),
    );
    setCookie(reply, await this.people.startSession(made.workspaceId, made.personId));
  }

  @Delete()
  @HttpCode(204)
  async signOut(
    @ByCaller() caller: Caller,
    @Req() request: FastifyRequest,
    @Res({ passthrough: true }) reply: FastifyReply,
  ): Promise<void> {
    const secret = request.cookies[SESSION_COOKIE];
    if (secret) await this.people.endSession(caller.workspaceId, secret);
    void reply.clearCookie(SESSION_COOKIE, { path: '/' });
  }
}

function setCookie(reply: FastifyReply, { secret, expiresAt }: { secret: string; expiresAt: Date }): void {
  void reply.setCookie(SESSION_COOKIE, secret, { path: '/', httpOnly: true, sameSite: 'strict', expires: expiresAt });
}
