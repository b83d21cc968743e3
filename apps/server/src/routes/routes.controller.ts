import { Body, Controller, Delete, Get, Headers, HttpCode, Inject, Param, Post, Put } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { FINISHERS } from '@haycart/core';
import type { PresenceShape, RouteDefinitionLine, RouteLine, RouteShape, RouteVersionLine } from '@haycart/api';
import { IsBoolean, IsObject, IsOptional, IsString, Length } from 'class-validator';
import { z } from 'zod';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Asks, Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { PeopleService } from '../workspaces/people.service';
import { PresenceService } from './presence.service';
import { RoutesService } from './routes.service';

class NewRouteDto {
  @ApiProperty({ description: 'A route definition; see /api/route.schema.json' }) @IsObject() definition: object;
}

class PublishDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(0, 500) note?: string;
  /** Publishes although saved cases come out otherwise. */
  @ApiPropertyOptional() @IsOptional() @IsBoolean() knowingly?: boolean;
}

@ApiTags('routes')
@Controller('api/v1')
export class RoutesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(PresenceService) private readonly presence: PresenceService,
    @Inject(PeopleService) private readonly people: PeopleService,
  ) {}

  @Get('routes')
  @Reads('routes', 'Lists routes')
  all(@ByCaller() { workspaceId }: Caller): Promise<RouteLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.routes.lines(tx));
  }

  /** What each route says, for whoever compares or learns from them. */
  @Get('route-definitions')
  @Reads('routes', 'Lists what each route says')
  definitions(@ByCaller() { workspaceId }: Caller): Promise<RouteDefinitionLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.routes.definitionLines(tx));
  }

  @Get('routes/:id')
  @Reads('routes', 'Shows a route')
  one(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<RouteShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.routes.one(tx, id));
  }

  @Get('routes/:id/versions')
  @Reads('routes', 'Lists the versions of a route')
  versions(@ByCaller() { workspaceId }: Caller, @Param('id') id: string): Promise<RouteVersionLine[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.routes.versions(tx, id));
  }

  @Post('routes')
  @Command('routes.add', 'Makes a route')
  @HttpCode(201)
  add(@InTransaction() tx: WorkspaceTx, @Body() { definition }: NewRouteDto): Promise<RouteShape> {
    return this.routes.add(tx, definition);
  }

  /** With `If-Match` (RFC 9110) and the revision that it was made on, a draft that somebody else saved since is not overwritten. */
  @Put('routes/:id/draft')
  @Command('routes.save-draft', 'Saves the draft of a route', { goesOn: true })
  async saveDraft(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Body() definition: Record<string, unknown>,
    @Headers('if-match') upon: string | undefined,
  ): Promise<RouteShape> {
    return this.routes.saveDraft(tx, id, definition, await this.#nameOf(tx, caller), readRevision(upon));
  }

  @Post('routes/:id/publish')
  @Command('routes.publish', 'Publishes a route')
  @HttpCode(200)
  async publish(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Body() { note, knowingly }: PublishDto,
  ): Promise<{ version: number }> {
    return this.routes.publish(tx, id, await this.#nameOf(tx, caller), note ?? null, knowingly);
  }

  /** Says that one has the route’s sheet open, and hears who else has. Scripts are nobody. */
  @Post('routes/:id/here')
  @Asks('routes', 'Says that a person has a route’s page open')
  @HttpCode(200)
  here(@ByCaller() { workspaceId, by }: Caller, @Param('id') id: string): Promise<PresenceShape> {
    if (by.kind !== 'person') throw new ProblemError('not-allowed', 'Only people are shown to others.');
    return this.database.inWorkspace(workspaceId, (tx) => this.presence.here(tx, id, by.id));
  }

  @Delete('routes/:id/here')
  @Asks('routes', 'Says that a person has left a route’s page')
  @HttpCode(204)
  async gone(@ByCaller() { workspaceId, by }: Caller, @Param('id') id: string): Promise<void> {
    if (by.kind === 'person') await this.database.inWorkspace(workspaceId, (tx) => this.presence.gone(tx, id, by.id));
  }

  /** Every finisher with its parameters as JSON Schema and an example. */
  @Get('finishers')
  @Reads('routes', 'Lists the finishers with their parameters')
  finishers() {
    return FINISHERS.map(({ name, label, description, parameters, example }) => ({
      name,
      label,
      description,
      example,
      parameters: z.toJSONSchema(parameters),
    }));
  }

  async #nameOf(tx: WorkspaceTx, { by }: Caller): Promise<string> {
    return by.kind === 'token' ? `token ${by.name}` : ((await this.people.one(tx, by.id))?.name ?? 'somebody');
  }
}

/** The revision in an `If-Match` header, quoted or not; `undefined` where none is asked for. */
function readRevision(header: string | undefined): number | undefined {
  if (header === undefined || header === '*') return undefined;
  const [, revision] = /^"?(\d{1,9})"?$/.exec(header) ?? [];
  if (revision === undefined)
    throw new ProblemError('refused', 'If-Match holds no revision of a draft.', [
      { at: '', code: 'wrong-value', message: 'Give the revision that the route told, such as "3".' },
    ]);
  return Number(revision);
}
