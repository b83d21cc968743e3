import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post, Query } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { stageOf, type PlaceKeys, type Stage } from '@haycart/core';
import type { PipelineShape, PlaceUse, SetUpChange } from '@haycart/api';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { PipelinesService } from '../pipelines/pipelines.service';
import { DealMovesService } from '../records/stages/deal-moves.service';
import { PeopleService } from '../workspaces/people.service';
import { PromiseDto, promiseFrom } from '../workspaces/promise.dto';
import { RemovalsService } from './removals.service';

const STATES = ['open', 'won', 'lost'] as const;
const MOST_STAGES = 50;

class NewStageDto {
  @ApiProperty() @IsString() @Length(1, 100) name: string;
  @ApiPropertyOptional({ enum: STATES }) @IsOptional() @IsIn(STATES) state?: Stage['state'];
  @ApiPropertyOptional() @IsOptional() @IsInt() probability?: number;
  @ApiPropertyOptional() @IsOptional() @IsInt() stuckAfter?: number;
  /** The key of the stage that it stands before; last of its kind when not said. */
  @ApiPropertyOptional() @IsOptional() @IsString() before?: string;
}

class NewPipelineDto {
  @ApiProperty() @IsString() @Length(1, 100) name: string;
  @ApiProperty({ enum: ['deal', 'lead'] }) @IsIn(['deal', 'lead']) record: 'deal' | 'lead';
  @ApiPropertyOptional({ type: [NewStageDto] })
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_STAGES)
  @ValidateNested({ each: true })
  @Type(() => NewStageDto)
  stages?: NewStageDto[];
}

class PipelineChangeDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) name?: string;
  @ApiPropertyOptional() @IsOptional() @IsString() defaultStage?: string;
  @ApiPropertyOptional({ type: PromiseDto, nullable: true })
  @IsOptional()
  @ValidateNested()
  @Type(() => PromiseDto)
  promise?: PromiseDto | null;
}

class StageChangeDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) name?: string;
  @ApiPropertyOptional({ enum: STATES }) @IsOptional() @IsIn(STATES) state?: Stage['state'];
  @ApiPropertyOptional({ nullable: true, type: Number })
  @ValidateIf((dto: StageChangeDto) => dto.probability !== null && dto.probability !== undefined)
  @IsInt()
  probability?: number | null;
  @ApiPropertyOptional({ nullable: true, type: Number })
  @ValidateIf((dto: StageChangeDto) => dto.stuckAfter !== null && dto.stuckAfter !== undefined)
  @IsInt()
  stuckAfter?: number | null;
  /** Where it stands among the stages, counted from 0. */
  @ApiPropertyOptional() @IsOptional() @IsInt() position?: number;
}

class OrderDto {
  @ApiProperty({ type: [String] }) @IsArray() @ArrayMaxSize(500) @IsString({ each: true }) ids: string[];
}

class RemovalQuery {
  /** Where goes what stands there: the keys of a pipeline and a stage, as `new-builds/quote`. */
  @ApiPropertyOptional() @IsOptional() @Matches(/^[^/]+\/[^/]+$/) moveTo?: string;
}

/** Preparing pipelines and stages, with all that depends on them. */
@ApiTags('pipelines')
@Controller('api/v1')
export class PipelineSetUpController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(PipelinesService) private readonly pipelines: PipelinesService,
    @Inject(PeopleService) private readonly people: PeopleService,
    @Inject(DealMovesService) private readonly deals: DealMovesService,
    @Inject(RemovalsService) private readonly removals: RemovalsService,
  ) {}

  @Post('pipelines')
  @Command('set-up.add-pipeline', 'Makes a pipeline', { tells: ['pipelines'] })
  @HttpCode(201)
  async make(
    @InTransaction() tx: WorkspaceTx,
    @Body() { name, record, stages }: NewPipelineDto,
  ): Promise<PipelineShape> {
    const made: Stage[] = [];
    for (const stage of stages ?? FIRST_STAGES) {
      const key = await this.pipelines.newStageKey(tx, { key: '', name, record, stages: made }, stage.name);
      made.push(stageOfDto(key, stage));
    }
    return this.pipelines.make(tx, { name, record, stages: made });
  }

  @Post('pipelines/order')
  @Command('set-up.order-pipelines', 'Orders the pipelines', { tells: ['pipelines'] })
  @HttpCode(200)
  reorder(@InTransaction() tx: WorkspaceTx, @Body() { ids }: OrderDto): Promise<PipelineShape[]> {
    return this.pipelines.reorder(tx, ids);
  }

  @Patch('pipelines/:id')
  @Command('set-up.change-pipeline', 'Changes a pipeline', { tells: ['pipelines'] })
  async change(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Body() { name, defaultStage, promise: dto }: PipelineChangeDto,
  ): Promise<PipelineShape> {
    if (name !== undefined) await this.pipelines.edit(tx, id, { do: 'rename', name });
    if (defaultStage !== undefined) await this.pipelines.edit(tx, id, { do: 'default-stage', stage: defaultStage });
    const promise = promiseFrom(dto);
    if (promise !== undefined) {
      await this.people.refuseMissedBy(tx, promise);
      await this.pipelines.edit(tx, id, { do: 'promise', promise });
    }
    return this.pipelines.one(tx, id);
  }

  @Delete('pipelines/:id')
  @Command('set-up.remove-pipeline', 'Takes a pipeline out of use', { tells: ['pipelines'] })
  remove(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Query() { moveTo }: RemovalQuery,
  ): Promise<SetUpChange> {
    return this.removals.remove(tx, id, null, placeFrom(moveTo), caller.by);
  }

  @Post('pipelines/:id/stages')
  @Command('set-up.add-stage', 'Adds a stage to a pipeline', { tells: ['pipelines'] })
  @HttpCode(201)
  async addStage(
    @InTransaction() tx: WorkspaceTx,
    @Param('id') id: string,
    @Body() { before, ...stage }: NewStageDto,
  ): Promise<PipelineShape> {
    const pipeline = await this.pipelines.held(tx, id);
    if (pipeline.stages.length >= MOST_STAGES)
      throw new ProblemError('conflict', `A pipeline has at most ${MOST_STAGES} stages.`);
    const key = await this.pipelines.newStageKey(tx, pipeline, stage.name);
    return this.pipelines.edit(tx, id, { do: 'add-stage', stage: stageOfDto(key, stage), before });
  }

  /** A stage's deals follow its state: one that becomes won makes its deals won. */
  @Patch('pipelines/:id/stages/:key')
  @Command('set-up.change-stage', 'Changes a stage', { tells: ['pipelines'] })
  async changeStage(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Param('key') key: string,
    @Body() { position, ...dto }: StageChangeDto,
  ): Promise<PipelineShape> {
    const before = await this.pipelines.held(tx, id);
    const stage = stageOf(before, key);
    if (!stage) throw new ProblemError('not-found', `${before.name} has no stage ${key}.`);
    const change = changeFrom(dto);
    let after = before;
    if (Object.keys(change).length)
      after = await this.pipelines.edit(tx, id, { do: 'change-stage', stage: key, change });
    if (position !== undefined)
      after = await this.pipelines.edit(tx, id, { do: 'move-stage', stage: key, to: position });
    if (stageOf(after, key)!.state !== stage.state)
      await this.deals.followState(tx, after, stageOf(after, key)!, personOf(caller), new Date().toISOString());
    return after;
  }

  @Delete('pipelines/:id/stages/:key')
  @Command('set-up.remove-stage', 'Takes a stage out of use', { tells: ['pipelines'] })
  removeStage(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
    @Param('key') key: string,
    @Query() { moveTo }: RemovalQuery,
  ): Promise<SetUpChange> {
    return this.removals.remove(tx, id, key, placeFrom(moveTo), caller.by);
  }

  @Get('set-up/place-uses')
  @Reads('set-up', 'Lists what uses each pipeline and stage')
  uses(@ByCaller() { workspaceId }: Caller): Promise<PlaceUse[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.removals.uses(tx));
  }

  @Get('set-up/changes')
  @Reads('set-up', 'Lists removals that can be taken back')
  changes(@ByCaller() { workspaceId }: Caller): Promise<SetUpChange[]> {
    return this.database.inWorkspace(workspaceId, (tx) => this.removals.changes(tx));
  }

  @Post('set-up/changes/:id/take-back')
  @Command('set-up.take-back', 'Takes a removal back', { tells: ['pipelines'] })
  @HttpCode(200)
  takeBack(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('id') id: string,
  ): Promise<SetUpChange> {
    return this.removals.takeBack(tx, id, personOf(caller));
  }
}

/** What a new pipeline starts with when nothing is said. */
const FIRST_STAGES: NewStageDto[] = [
  { name: 'New', state: 'open' },
  { name: 'Won', state: 'won' },
  { name: 'Lost', state: 'lost' },
];

function stageOfDto(key: string, { name, state = 'open', probability, stuckAfter }: NewStageDto): Stage {
  return {
    key,
    name: name.trim(),
    state,
    ...(probability === undefined ? {} : { probability }),
    ...(stuckAfter === undefined ? {} : { stuckAfter }),
  };
}

/** What is said of a stage; `null` takes a value away. */
function changeFrom(dto: Omit<StageChangeDto, 'position'>): Partial<Omit<Stage, 'key'>> {
  const said = Object.entries(dto).filter(([, value]) => value !== undefined);
  return Object.fromEntries(said.map(([key, value]) => [key, value ?? undefined]));
}

function placeFrom(moveTo: string | undefined): PlaceKeys | null {
  if (moveTo === undefined) return null;
  const [pipeline, stage] = moveTo.split('/') as [string, string];
  return { pipeline, stage };
}

function personOf({ by }: Caller): string {
  if (by.kind !== 'person')
    throw new ProblemError(
      'not-allowed',
      'This moves deals and rewrites routes, so it is done by a person who is signed in.',
    );
  return by.id;
}
