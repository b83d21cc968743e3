import { Body, Controller, Get, Inject, Param, Put, Query } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { ProfileShape } from '@haycart/api';
import { IsIn, IsOptional, IsString, IsUUID, Length, ValidateBy } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { ProfilesService } from './profiles.service';
import { SamplesService, type SampleWish } from './samples.service';

const MOST_NAMES = 2_000;
const LONGEST_NAME = 200;

/** Names for fields by key: texts that are not blank, or null. */
function IsNames() {
  return ValidateBy({
    name: 'isNames',
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.keys(value).length > 0 &&
        Object.keys(value).length <= MOST_NAMES &&
        Object.values(value).every(
          (name) => name === null || (typeof name === 'string' && name.trim() !== '' && name.length <= LONGEST_NAME),
        ),
      defaultMessage: () =>
        `names gives up to ${MOST_NAMES} fields a name of at most ${LONGEST_NAME} characters, or null`,
    },
  });
}

class FieldNamesDto {
  @ApiProperty({ type: Object, description: 'What fields are called, by key; null takes a name back.' })
  @IsNames()
  names: Record<string, string | null>;
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
  @Reads('intakes', 'Tells what an intake has received, field by field')
  profile(@ByCaller() { workspaceId }: Caller, @Param('key') key: string): Promise<ProfileShape> {
    return this.database.inWorkspace(workspaceId, (tx) => this.profiles.shape(tx, key));
  }

  /** The submission of an intake that shows best what a route is to do; `null` where there is none such. */
  @Get('intakes/:key/sample')
  @Reads('intakes', 'Finds the submission that shows best what a route is to do')
  sample(
    @ByCaller() { workspaceId }: Caller,
    @Param('key') key: string,
    @Query() query: SampleQuery,
  ): Promise<{ submission: string | null }> {
    return this.database.inWorkspace(workspaceId, async (tx) => ({
      submission: await this.samples.find(tx, key, wishFrom(query)),
    }));
  }

  /** Names fields whose sender gives only ids; `null` takes a name back. */
  @Put('intakes/:key/profile/names')
  @Command('intakes.name-fields', 'Names the fields that an intake receives')
  nameFields(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Body() { names }: FieldNamesDto,
  ): Promise<ProfileShape> {
    return this.profiles.name(tx, key, names);
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
