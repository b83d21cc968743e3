import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import { COLOUR_MARKS, type ColourMark } from '@haycart/core';
import type { DoneEdit, LabelShape, LabelUse, MembershipLine } from '@haycart/api';
import { IsIn, IsOptional, IsString, Length, ValidateIf } from 'class-validator';
import { ByCaller, type Caller } from '../../platform/auth/caller';
import { Command, InTransaction, Reads } from '../../platform/commands/command';
import { Database, type WorkspaceTx } from '../../platform/database/database';
import { ProblemError } from '../../platform/errors/problem-error';
import { LabelledService } from '../../records/edits/labelled.service';
import { PeopleService } from '../../workspaces/people.service';
import { LabelsInRoutes } from './labels-in-routes.service';
import { LabelsService, type LabelKind } from '../../labels/labels.service';

class NewLabelDto {
  @ApiProperty() @IsString() @Length(1, 100) name: string;
  @ApiPropertyOptional({ enum: COLOUR_MARKS }) @IsOptional() @IsIn(COLOUR_MARKS) colour?: ColourMark;
}

class LabelDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 100) name?: string;
  @ApiPropertyOptional({ enum: COLOUR_MARKS })
  @IsOptional()
  @ValidateIf((_, value) => value !== null)
  @IsIn(COLOUR_MARKS)
  colour?: ColourMark | null;
}

class MergeDto {
  /** The key of the label that stays. */
  @ApiProperty() @IsString() @Length(1, 100) into: string;
}

/** What tags and lists have in common. */
abstract class LabelsController {
  protected abstract readonly kind: LabelKind;

  constructor(
    @Inject(Database) protected readonly database: Database,
    @Inject(LabelsService) protected readonly labels: LabelsService,
    @Inject(LabelledService) protected readonly labelled: LabelledService,
    @Inject(LabelsInRoutes) protected readonly inRoutes: LabelsInRoutes,
    @Inject(PeopleService) protected readonly people: PeopleService,
  ) {}

  @Get()
  @Reads('set-up', 'Lists tags or lists with how many records carry them')
  all(@ByCaller() { workspaceId }: Caller): Promise<LabelUse[]> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const counts = await this.labelled.counts(tx, this.kind);
      return (await this.labels.all(tx, this.kind))
        .filter(({ retired }) => !retired)
        .map((label) => ({ ...label, records: counts.get(label.key) ?? 0 }));
    });
  }

  @Post()
  @Command('set-up.add-label', 'Makes a tag or a list', { tells: ['labels', 'fields'] })
  @HttpCode(201)
  add(@InTransaction() tx: WorkspaceTx, @Body() { name, colour = undefined }: NewLabelDto): Promise<LabelShape> {
    return this.labels.add(tx, this.kind, name, colour ?? null);
  }

  @Patch(':key')
  @Command('set-up.change-label', 'Changes a tag or a list', { tells: ['labels', 'fields'] })
  change(@InTransaction() tx: WorkspaceTx, @Param('key') key: string, @Body() change: LabelDto): Promise<LabelShape> {
    return this.labels.change(tx, this.kind, key, change);
  }

  /** Takes a label off everything that carries it, and out of use. */
  @Delete(':key')
  @Command('set-up.remove-label', 'Takes a tag or a list off everything and out of use', {
    tells: ['labels', 'fields'],
  })
  async remove(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('key') key: string,
  ): Promise<DoneEdit> {
    const { name } = await this.labels.one(tx, this.kind, key);
    const done = await this.labelled.replace(tx, this.kind, key, null, `Deleted the ${this.kind} ${name}`, caller.by);
    await this.labels.retire(tx, this.kind, key, done.edit);
    return done;
  }

  /** Puts another label in the place of one, everywhere, and takes the one out of use. */
  @Post(':key/merge')
  @Command('set-up.merge-labels', 'Puts another tag or list in the place of one', {
    tells: ['labels', 'fields', 'routes'],
  })
  @HttpCode(200)
  async merge(
    @InTransaction() tx: WorkspaceTx,
    @ByCaller() caller: Caller,
    @Param('key') key: string,
    @Body() { into }: MergeDto,
  ): Promise<DoneEdit> {
    const from = await this.labels.one(tx, this.kind, key);
    const to = await this.labels.one(tx, this.kind, into);
    if (from.key === to.key) throw new ProblemError('conflict', 'These are one and the same.');
    const text = `Merged the ${this.kind} ${from.name} into ${to.name}`;
    const by = await this.people.nameOf(tx, caller.by);
    await this.inRoutes.merge(tx, this.kind, from.key, to.key, by, `${text}.`);
    const done = await this.labelled.replace(tx, this.kind, key, to.key, text, caller.by);
    await this.labels.retire(tx, this.kind, key, done.edit);
    return done;
  }
}

/** Words that any record can carry. */
@ApiTags('labels')
@Controller('api/v1/tags')
export class TagsController extends LabelsController {
  protected readonly kind = 'tag';
}

/** Lists that contacts can be on. */
@ApiTags('labels')
@Controller('api/v1/lists')
export class ListsController extends LabelsController {
  protected readonly kind = 'list';

  /** Who came on a list and left it, the latest first. */
  @Get(':key/memberships')
  @Reads('records', 'Lists who joined and left a list')
  memberships(@ByCaller() { workspaceId }: Caller, @Param('key') key: string): Promise<MembershipLine[]> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      await this.labels.one(tx, 'list', key);
      return this.labelled.memberships(tx, key);
    });
  }
}
