import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
} from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags, PartialType } from '@nestjs/swagger';
import type { CampaignLink, CampaignShape } from '@haycart/api';
import {
  CAMPAIGN_PARAMETERS,
  LINK_LIMITS,
  type CampaignParameter,
  type LinkParameters,
  type LinkRules,
} from '@haycart/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { PeopleService } from '../workspaces/people.service';
import { CampaignLinks } from './campaign-links.service';
import { CampaignsService } from './campaigns.service';
import { LinkRulesService } from './link-rules.service';
import { WrongLinks } from './wrong-links.service';

const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;
const LONGEST = LINK_LIMITS.wordLength;

/** Checks a list of words. */
function IsWords(): PropertyDecorator {
  return (target, name) => {
    for (const check of [IsArray(), ArrayMaxSize(LINK_LIMITS.words), Length(1, LONGEST, { each: true })])
      check(target, name);
  };
}

class CampaignDto {
  @ApiProperty() @IsString() @Length(1, LONGEST) @Matches(/\S/) name: string;
  @ApiProperty({ description: 'What links to it say: `utm_campaign`' })
  @IsString()
  @Length(1, LONGEST)
  @Matches(/\S/)
  code: string;
  @ApiPropertyOptional({ description: 'What its links say as `utm_source`' })
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST)
  source?: string;
  @ApiPropertyOptional({ description: 'What its links say as `utm_medium`' })
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST)
  medium?: string;
  @ApiPropertyOptional({ type: [String], description: 'What links also said that were meant for it' })
  @IsOptional()
  @IsWords()
  spellings?: string[];
  @ApiPropertyOptional({ nullable: true }) @IsOptional() @Matches(ISO_DAY) @IsISO8601({ strict: true }) starts?: string;
  @ApiPropertyOptional({ nullable: true }) @IsOptional() @Matches(ISO_DAY) @IsISO8601({ strict: true }) ends?: string;
  @ApiPropertyOptional({ type: String, nullable: true, description: 'The key of a person' })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  owner?: string | null;
  @ApiPropertyOptional() @IsOptional() @IsBoolean() archived?: boolean;
}

class CampaignChangeDto extends PartialType(CampaignDto) {}

class LinkParametersDto implements LinkParameters {
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) utm_source?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) utm_medium?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) utm_campaign?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) utm_term?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) utm_content?: string;
}

class CampaignLinkDto {
  @ApiProperty({ description: 'The page it leads to' }) @IsString() @Length(1, LINK_LIMITS.address) page: string;
  @ApiProperty({ type: LinkParametersDto, description: 'What it says beside what the campaign says' })
  @ValidateNested()
  @Type(() => LinkParametersDto)
  parameters: LinkParametersDto;
}

class CampaignLinksDto {
  @ApiProperty({ type: [CampaignLinkDto] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(LINK_LIMITS.links)
  @ValidateNested({ each: true })
  @Type(() => CampaignLinkDto)
  links: CampaignLinkDto[];
}

class WordsDto {
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsWords() utm_source?: string[];
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsWords() utm_medium?: string[];
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsWords() utm_campaign?: string[];
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsWords() utm_term?: string[];
  @ApiPropertyOptional({ type: [String] }) @IsOptional() @IsWords() utm_content?: string[];
}

class LinkRulesDto implements LinkRules {
  @ApiProperty({ enum: CAMPAIGN_PARAMETERS, isArray: true })
  @IsArray()
  @ArrayMaxSize(CAMPAIGN_PARAMETERS.length)
  @IsIn(CAMPAIGN_PARAMETERS, { each: true })
  required: CampaignParameter[];
  @ApiProperty() @IsBoolean() lowerCase: boolean;
  @ApiProperty({ enum: ['', '-', '_'], description: 'What stands for a space' }) @IsIn(['', '-', '_']) space:
    '' | '-' | '_';
  @ApiProperty({ type: WordsDto, description: 'The words that each may say; any where there are none' })
  @ValidateNested()
  @Type(() => WordsDto)
  words: WordsDto;
}

/** The register of campaigns, their links, and how links are written. */
@ApiTags('sources')
@Controller('api/v1')
export class CampaignsController {
  constructor(
    @Inject(CampaignLinks) private readonly links: CampaignLinks,
    @Inject(CampaignsService) private readonly campaigns: CampaignsService,
    @Inject(Database) private readonly database: Database,
    @Inject(LinkRulesService) private readonly rules: LinkRulesService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(WrongLinks) private readonly wrong: WrongLinks,
  ) {}

  @Get('campaigns')
  @Reads('records', 'Lists campaigns')
  all(@ByCaller() { workspaceId }: Caller): Promise<CampaignShape[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.campaigns.all(tx));
  }

  @Post('campaigns')
  @Command('set-up.add-campaign', 'Adds a campaign', { tells: ['sources'] })
  @HttpCode(201)
  async add(@InTransaction() tx: WorkspaceTx, @Body() made: CampaignDto): Promise<CampaignShape> {
    const added = await this.campaigns.add(tx, made);
    await this.wrong.lookAgain(tx);
    return added;
  }

  @Patch('campaigns/:key')
  @Command('set-up.change-campaign', 'Changes a campaign', { tells: ['sources'] })
  async change(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Body() change: CampaignChangeDto,
  ): Promise<CampaignShape> {
    const changed = await this.campaigns.change(tx, key, change);
    await this.wrong.lookAgain(tx);
    return changed;
  }

  @Delete('campaigns/:key')
  @Command('set-up.remove-campaign', 'Removes a campaign', { tells: ['sources'] })
  @HttpCode(204)
  remove(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<void> {
    return this.campaigns.remove(tx, key);
  }

  @Get('campaigns/:key/links')
  @Reads('records', 'Lists the links of a campaign with what each brought')
  linksOf(@ByCaller() { workspaceId }: Caller, @Param('key') key: string): Promise<CampaignLink[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.links.of(tx, key));
  }

  @Post('campaigns/:key/links')
  @Command('set-up.make-links', 'Makes links of a campaign', { tells: ['sources'] })
  @HttpCode(201)
  async make(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() { by }: Caller,
    @Param('key') key: string,
    @Body() { links }: CampaignLinksDto,
  ): Promise<CampaignLink[]> {
    return this.links.make(tx, key, links, await this.people.nameOf(tx, by));
  }

  @Delete('campaigns/:key/links/:id')
  @Command('set-up.remove-link', 'Removes a link of a campaign', { tells: ['sources'] })
  @HttpCode(204)
  removeLink(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<void> {
    return this.links.remove(tx, key, id);
  }

  @Get('link-rules')
  @Reads('set-up', 'Tells how the parameters of links are written')
  readRules(@ByCaller() { workspaceId }: Caller): Promise<LinkRules> {
    return this.database.inWorkspace(workspaceId, (tx) => this.rules.rules(tx));
  }

  @Put('link-rules')
  @Command('set-up.link-rules', 'Changes how the parameters of links are written', { tells: ['sources'] })
  async saveRules(@InTransaction() tx: WorkspaceTx, @Body() rules: LinkRulesDto): Promise<LinkRules> {
    const saved = await this.rules.save(tx, rules);
    await this.wrong.lookAgain(tx);
    return saved;
  }
}
