import { Controller, Get, Inject, Query, Res } from '@nestjs/common';
import { ApiProduces, ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import {
  JOURNEY_BASES,
  SOURCE_FIGURES,
  type AnswerSpeed,
  type JourneyBasis,
  type JourneyPaths,
  type SourceCohort,
  type SourceFigure,
  type SourceFunnel,
  type SourceRecords,
  type SourcesReport,
  type UnknownSources,
} from '@haycart/api';
import { LIMITS, type Pipeline } from '@haycart/core';
import { IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
import type { FastifyReply } from 'fastify';
import { DestinationService } from '../destination/destination.service';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { EXPORT_TYPES, sendExport } from '../platform/export-file';
import { listSetting } from '../records/lists/list-setting';
import type { ListSetting } from '../records/lists/record-lists.service';
import { PeopleService } from '../workspaces/people.service';
import { answerSpeed } from './answer-speed';
import { cohorts } from './cohorts';
import { funnel } from './funnel';
import { journeyPaths } from './journey-paths';
import { DEAL_STATUSES, openStages, type CameTo, type DealStatus } from './narrowing/furthest-stage';
import { exportSources } from './sources-export';
import { SourceRecordsService } from './source-records.service';
import { narrowingOf, SourcesQuery, NarrowingQuery, wishOf } from './sources-query';
import { SourcesService } from './sources.service';
import { UnknownService } from './unknown.service';

/** As long as what is kept of a visit. */
const LONGEST = LIMITS.visitPart.most;
const FORMATS = ['csv', 'xlsx'] as const;

class ExportQuery extends SourcesQuery {
  @ApiProperty({ enum: FORMATS }) @IsIn(FORMATS) format: (typeof FORMATS)[number];
}

class FunnelQuery extends SourcesQuery {
  @ApiPropertyOptional({ description: 'The key of a pipeline of deals; the first when not said' })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  pipeline?: string;
}

class RecordsQuery extends FunnelQuery {
  @ApiProperty({ enum: SOURCE_FIGURES })
  @IsIn(SOURCE_FIGURES)
  figure: SourceFigure;

  @ApiPropertyOptional({
    description: 'The channel of the row. All channels when left out; records without any touch when blank',
  })
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST)
  channel?: string;

  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) source?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) campaign?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() @MaxLength(LONGEST) page?: string;

  @ApiPropertyOptional({ description: 'The value of what the first rows go by; blank where there is none' })
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST)
  splitValue?: string;

  @ApiPropertyOptional({ description: 'An open stage of the pipeline: deals that reached it, or were lost at it' })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  stage?: string;

  @ApiPropertyOptional({ enum: DEAL_STATUSES, description: 'What became of deals of the pipeline' })
  @IsOptional()
  @IsIn(DEAL_STATUSES)
  status?: DealStatus;
}

class CohortsQuery extends NarrowingQuery {
  @ApiPropertyOptional({ enum: JOURNEY_BASES, description: 'Whose touches count; `contact` when not said' })
  @IsOptional()
  @IsIn(JOURNEY_BASES)
  basis?: JourneyBasis;

  @ApiPropertyOptional({ description: 'The channel of the first touch; any when not said' })
  @IsOptional()
  @IsString()
  @MaxLength(LONGEST)
  channel?: string;
}

/** Where business came from. */
@ApiTags('reports')
@Controller('api/v1/reports')
export class AttributionController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(DestinationService) private readonly destinations: DestinationService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(SourcesService) private readonly sources: SourcesService,
    @Inject(SourceRecordsService) private readonly records: SourceRecordsService,
    @Inject(UnknownService) private readonly unknown: UnknownService,
  ) {}

  @Get('sources')
  @Reads('records', 'Tells where business came from in a period')
  report(@ByCaller() caller: Caller, @Query() query: SourcesQuery): Promise<SourcesReport> {
    return this.#ask(caller, (tx, setting) => this.sources.report(tx, wishOf(query, setting), setting));
  }

  /** Told apart down to campaigns when nothing else is said. */
  @Get('sources/export')
  @ApiProduces(EXPORT_TYPES.csv, EXPORT_TYPES.xlsx)
  @Reads('records', 'Gives where business came from as a file')
  async export(@ByCaller() caller: Caller, @Query() query: ExportQuery, @Res() reply: FastifyReply): Promise<void> {
    const { report, by } = await this.#ask(caller, async (tx, setting) => {
      const wish = wishOf({ by: 'channel,source,campaign', ...query }, setting);
      return { report: await this.sources.report(tx, wish, setting), by: wish.by };
    });
    await sendExport(reply, 'sources', query.format, (take) => take(exportSources(query.format, report, by)));
  }

  @Get('sources/paths')
  @Reads('records', 'Tells which ways journeys to deals went')
  paths(@ByCaller() caller: Caller, @Query() query: SourcesQuery): Promise<JourneyPaths> {
    return this.#ask(caller, (tx, setting) => journeyPaths(tx, wishOf(query, setting), setting));
  }

  /** By the month of the first touch; of one channel, where it is said. */
  @Get('sources/cohorts')
  @Reads('records', 'Tells what became of the deals of each month')
  cohorts(@ByCaller() caller: Caller, @Query() query: CohortsQuery): Promise<SourceCohort[]> {
    const { basis = 'contact', channel = null } = query;
    return this.#ask(caller, (tx, setting) => cohorts(tx, { basis, channel, narrowing: narrowingOf(query) }, setting));
  }

  @Get('sources/funnel')
  @Reads('records', 'Tells how far the deals of each source came')
  funnel(@ByCaller() caller: Caller, @Query() query: FunnelQuery): Promise<SourceFunnel> {
    return this.#ask(caller, (tx, setting) => {
      return funnel(tx, wishOf(query, setting), pipelineOf(query, setting), setting);
    });
  }

  @Get('sources/answers')
  @Reads('records', 'Tells how fast what came was answered')
  answers(@ByCaller() caller: Caller, @Query() query: SourcesQuery): Promise<AnswerSpeed> {
    return this.#ask(caller, (tx, setting) => answerSpeed(tx, wishOf(query, setting), setting));
  }

  @Get('sources/unknown')
  @Reads('records', 'Tells why it is not known where some of it came from')
  whyUnknown(@ByCaller() caller: Caller, @Query() query: SourcesQuery): Promise<UnknownSources> {
    return this.#ask(caller, (tx, setting) => this.unknown.unknown(tx, wishOf(query, setting), setting));
  }

  @Get('sources/records')
  @Reads('records', 'Lists the records behind a figure of where business came from')
  behind(@ByCaller() caller: Caller, @Query() query: RecordsQuery): Promise<SourceRecords> {
    const { figure, channel, source, campaign, page, splitValue } = query;
    const path = { channel, source, campaign, page, splitValue };
    return this.#ask(caller, (tx, setting) => {
      const wish = wishOf(query, setting);
      const narrowing = { ...wish.narrowing, cameTo: cameToOf(query, setting) };
      return this.records.behind(tx, { ...wish, narrowing }, { figure, path }, setting);
    });
  }

  /** All at one moment, so that parts add up. */
  #ask<Answer>(
    { workspaceId, by }: Caller,
    answer: (tx: WorkspaceTx, setting: ListSetting) => Promise<Answer>,
  ): Promise<Answer> {
    return this.database.atOneMoment(workspaceId, async (tx) => {
      const me = by.kind === 'person' ? (await this.people.one(tx, by.id))?.key : undefined;
      return answer(tx, listSetting(await this.destinations.load(tx), me));
    });
  }
}

/** @throws ProblemError when there is no such pipeline of deals. */
function pipelineOf({ pipeline: key }: FunnelQuery, { destination }: ListSetting): Pipeline {
  const ofDeals = destination.pipelines.filter(({ record }) => record === 'deal');
  const pipeline = key ? ofDeals.find((one) => one.key === key) : ofDeals[0];
  if (!pipeline) throw new ProblemError('not-found', 'There is no such pipeline of deals.');
  return pipeline;
}

/** @throws ProblemError for a stage that is none, or in which deals are not open. */
function cameToOf(query: RecordsQuery, setting: ListSetting): CameTo | undefined {
  const { pipeline: key, stage = null, status = null } = query;
  if (key === undefined && stage === null && status === null) return undefined;
  const pipeline = pipelineOf(query, setting);
  if (stage !== null && !openStages(pipeline).includes(stage))
    throw new ProblemError('refused', `“${stage}” is no open stage of the pipeline ${pipeline.name}.`);
  return { pipeline, stage, status };
}
