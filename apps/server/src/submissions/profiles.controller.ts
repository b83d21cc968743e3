import { Body, Controller, Get, Inject, Param, Put, Query } from '@nestjs/common';
import { ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { ProfileShape } from '@haycart/api';
import { IsIn, IsOptional, IsString, IsUUID, Length } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Database } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { ProfilesService } from './profiles.service';
import { SamplesService, type SampleWish } from './samples.service';

class FieldNameDto {
  @IsString() @Length(1, 2_000) field: string;
  @ApiPropertyOptional({ type: String, nullable: true }) @IsOptional() @IsString() @Length(1, 200) name?: string | null;
}

class SampleQuery {
  @IsIn(['complete', 'failing', 'holding']) kind: SampleWish['kind'];
  @ApiPropertyOptional({ description: 'For `failing`: the route that failed.' }) @IsOptional() @IsUUID() route?: string;
  @ApiPropertyOptional({ description: 'For `holding`.' }) @IsOptional() @IsString() @Length(1, 200) text?: string;
}

/** What an intake has received: its profile, and the submissions that show best what it is like. */
@ApiTags('intakes')
@Controller('api/v1')
export class ProfilesController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(ProfilesService) private readonly profiles: ProfilesService,
    @Inject(SamplesService) private readonly samples: SamplesService,
  ) {}

  /** What an intake has really received, field by field. */
  @Get('intakes/:key/profile')
  profile(@ByCaller() { workspaceId }: Caller, @Param('key') key: string): Promise<ProfileShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.profiles.shape(tx, key));
  }

  /** The submission of an intake that shows best what a route is to do; `null` where there is none such. */
  @Get('intakes/:key/sample')
  sample(
    @ByCaller() { workspaceId }: Caller,
    @Param('key') key: string,
    @Query() query: SampleQuery,
  ): Promise<{ submission: string | null }> {
    return this.database.inWorkspace(workspaceId, async (tx) => ({
      submission: await this.samples.find(tx, key, wishFrom(query)),
    }));
  }

  /** Names a field whose sender gives only an id; `null` takes the name back. */
  @Put('intakes/:key/profile/names')
  nameField(
    @ByCaller() { workspaceId }: Caller,
    @Param('key') key: string,
    @Body() { field, name }: FieldNameDto,
  ): Promise<ProfileShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.profiles.name(tx, key, field, name ?? null));
  }
}

function wishFrom({ kind, route, text }: SampleQuery): SampleWish {
  if (kind === 'complete') return { kind };
  if (kind === 'failing' && route !== undefined) return { kind, route };
  if (kind === 'holding' && text?.trim()) return { kind, text };
  const missing = kind === 'failing' ? 'route' : 'text';
  throw new ProblemError('refused', 'Say what the sample must have.', [
    { at: `/${missing}`, code: 'missing', message: `Give a ${missing}.` },
  ]);
}
