import { Body, Controller, Delete, Get, HttpCode, Inject, Param, ParseUUIDPipe, Post, Put, Req } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { NewTokenShape, SessionLine, TokenLine, TokenScope } from '@haycart/api';
import { IsIn, IsInt, IsString, Length, Max, Min } from 'class-validator';
import type { FastifyRequest } from 'fastify';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { readCookie, SESSION_COOKIE } from '../platform/auth/cookies';
import { NeedsPerson } from '../platform/auth/marks';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { Doors } from '../platform/doors';
import { ProblemError } from '../platform/errors/problem-error';
import { PASSWORD_LENGTH } from './passwords';
import { PersonLinks } from './person-links.service';
import { SessionsService } from './sessions.service';
import { TokensService } from './tokens.service';

class PasswordDto {
  @ApiProperty() @IsString() @Length(1, PASSWORD_LENGTH.most) old: string;
  @ApiProperty() @IsString() @Length(1, PASSWORD_LENGTH.most) password: string;
}

class TokenDto {
  @ApiProperty() @IsString() @Length(1, 80) name: string;
  @ApiProperty({ enum: ['read', 'send', 'all'] }) @IsIn(['read', 'send', 'all']) scope: TokenScope;
  @ApiProperty({ description: 'Days until it ends' }) @IsInt() @Min(1) @Max(366) days: number;
}

/** One's own password and sessions, and the tokens of the workspace. */
@ApiTags('access')
@Controller('api/v1')
@NeedsPerson()
export class AccountController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(Doors) private readonly doors: Doors,
    @Inject(PersonLinks) private readonly links: PersonLinks,
    @Inject(SessionsService) private readonly sessions: SessionsService,
    @Inject(TokensService) private readonly tokens: TokensService,
  ) {}

  @Put('account/password')
  @Command('account.change-password', 'Changes one’s password')
  @HttpCode(204)
  password(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Body() { old, password }: PasswordDto,
    @Req() request: FastifyRequest,
  ): Promise<void> {
    return this.links.change(tx, personOf(caller), old, password, this.#session(request));
  }

  @Get('account/sessions')
  @Reads('account', 'Lists where one is signed in')
  mySessions(@ByCaller() caller: Caller, @Req() request: FastifyRequest): Promise<SessionLine[]> {
    return this.database.inWorkspace(caller.workspaceId, (tx) =>
      this.sessions.of(tx, personOf(caller), this.#session(request)),
    );
  }

  @Delete('account/sessions/:id')
  @Command('account.end-session', 'Signs one of one’s devices out')
  @HttpCode(204)
  endSession(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<void> {
    return this.sessions.end(tx, personOf(caller), id);
  }

  /** Ends all of one's sessions but this one. */
  @Delete('account/sessions')
  @Command('account.end-other-sessions', 'Signs one’s other devices out')
  @HttpCode(204)
  endOthers(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Req() request: FastifyRequest,
  ): Promise<void> {
    return this.sessions.endAll(tx, personOf(caller), this.#session(request));
  }

  @Get('tokens')
  @Reads('account', 'Lists tokens')
  allTokens(@ByCaller() { workspaceId }: Caller): Promise<TokenLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.tokens.all(tx));
  }

  /** The secret is in this answer alone. */
  @Post('tokens')
  @Command('account.make-token', 'Makes a token')
  @HttpCode(201)
  makeToken(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Body() { name, scope, days }: TokenDto,
  ): Promise<NewTokenShape> {
    const wish = { name: name.trim(), scope, hours: days * 24, personId: personOf(caller) };
    return this.tokens.make(tx, wish);
  }

  @Delete('tokens/:id')
  @Command('account.revoke-token', 'Ends a token')
  @HttpCode(204)
  revoke(@InTransaction() tx: WorkspaceTx, @Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.tokens.revoke(tx, id);
  }

  #session(request: FastifyRequest): string | undefined {
    return readCookie(request, SESSION_COOKIE, this.doors.secure);
  }
}

/** @throws ProblemError 403 for a token, which has neither password nor sessions. */
function personOf({ by }: Caller): string {
  if (by.kind !== 'person') throw new ProblemError('not-allowed', 'Only a person who is signed in may do this.');
  return by.id;
}
