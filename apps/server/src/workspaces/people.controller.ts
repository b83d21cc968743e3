import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags, PickType } from '@nestjs/swagger';
import type { AwayDates, WorkingHours } from '@haycart/core';
import type { PersonLinkShape, PersonShape, TeamShape } from '@haycart/api';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { NeedsPerson } from '../platform/auth/marks';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { PeopleService } from './people.service';
import { PersonLinks } from './person-links.service';
import { PromiseDto, promiseFrom } from './promise.dto';
import { TeamsService } from './teams.service';

class AwayDto implements AwayDates {
  @ApiProperty() @IsString() from: string;
  @ApiProperty() @IsString() to: string;
}

class PersonDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 80) name?: string;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() active?: boolean;
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(250)
  @IsString({ each: true })
  regions?: string[];
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @IsString({ each: true })
  languages?: string[];
  @ApiPropertyOptional() @IsOptional() @ValidateIf((_, value) => value !== null) @IsString() timeZone?: string | null;
  @ApiPropertyOptional() @ValidateIf((_, value) => value !== undefined) @IsObject() hours?: WorkingHours;
  @ApiPropertyOptional({ description: 'E.164, for text messages' })
  @IsOptional()
  @ValidateIf((_, value) => value !== null)
  @IsString()
  @Length(1, 40)
  phone?: string | null;
  @ApiPropertyOptional() @IsOptional() @ValidateIf((_, value) => value !== null) @IsInt() capacity?: number | null;
  @ApiPropertyOptional({ description: 'How much of what comes on one day is enough' })
  @IsOptional()
  @ValidateIf((_, value) => value !== null)
  @IsInt()
  perDay?: number | null;
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @IsString({ each: true })
  skills?: string[];
  @ApiPropertyOptional({ type: [AwayDto] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => AwayDto)
  away?: AwayDto[];
}

class NewPersonDto {
  @ApiProperty() @IsString() @Length(2, 80) name: string;
  @ApiProperty() @IsEmail() email: string;
}

class TeamDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 80) name?: string;
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(1_000)
  @IsString({ each: true })
  people?: string[];
  @ApiPropertyOptional({ type: PromiseDto, nullable: true })
  @IsOptional()
  @ValidateNested()
  @Type(() => PromiseDto)
  promise?: PromiseDto | null;
}

class NewTeamDto extends PickType(TeamDto, ['people']) {
  @ApiProperty() @IsString() @Length(1, 80) name: string;
}

/** Who works here, and in which teams. */
@ApiTags('people')
@Controller('api/v1')
export class PeopleController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(TeamsService) private readonly teams: TeamsService,
    @Inject(PersonLinks) private readonly links: PersonLinks,
  ) {}

  @Get('people')
  @Reads('people', 'Lists people')
  all(@ByCaller() { workspaceId }: Caller): Promise<PersonShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.teams.everybody(tx));
  }

  /** Invites somebody: they set their password by the link, which is in this answer alone. */
  @Post('people')
  @Command('people.add', 'Adds a person', { tells: ['people', 'fields'] })
  @NeedsPerson()
  @HttpCode(201)
  async add(
    @InTransaction() tx: WorkspaceTx,
    @Body() person: NewPersonDto,
  ): Promise<PersonShape & { link: PersonLinkShape }> {
    const id = await this.people.add(tx, person);
    return { ...(await this.teams.byId(tx, id)), link: await this.links.make(tx, id) };
  }

  /** A link by which somebody sets a new password; it is in this answer alone. */
  @Post('people/:key/link')
  @Command('people.make-link', 'Makes a link by which a person sets their password', { tells: ['people', 'fields'] })
  @NeedsPerson()
  @HttpCode(201)
  async link(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<PersonLinkShape> {
    return this.links.make(tx, (await this.teams.one(tx, key)).id);
  }

  @Patch('people/:key')
  @Command('people.change', 'Changes a person', { tells: ['people', 'fields'] })
  @NeedsPerson()
  change(@InTransaction() tx: WorkspaceTx, @Param('key') key: string, @Body() change: PersonDto): Promise<PersonShape> {
    return this.teams.change(tx, key, change);
  }

  @Get('teams')
  @Reads('people', 'Lists teams')
  allTeams(@ByCaller() { workspaceId }: Caller): Promise<TeamShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.teams.all(tx));
  }

  @Post('teams')
  @Command('people.add-team', 'Makes a team', { tells: ['people', 'fields'] })
  @HttpCode(201)
  addTeam(@InTransaction() tx: WorkspaceTx, @Body() { name, people = [] }: NewTeamDto): Promise<TeamShape> {
    return this.teams.addTeam(tx, name, people);
  }

  @Patch('teams/:key')
  @Command('people.change-team', 'Changes a team', { tells: ['people', 'fields'] })
  async changeTeam(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Body() { promise: dto, ...change }: TeamDto,
  ): Promise<TeamShape> {
    const promise = promiseFrom(dto);
    await this.people.refuseMissedBy(tx, promise ?? null);
    return this.teams.changeTeam(tx, key, { ...change, promise });
  }

  @Delete('teams/:key')
  @Command('people.remove-team', 'Removes a team', { tells: ['people', 'fields'] })
  @HttpCode(204)
  removeTeam(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<void> {
    return this.teams.removeTeam(tx, key);
  }
}
