import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Patch, Post } from '@nestjs/common';
import { ApiProperty, ApiPropertyOptional, ApiTags } from '@nestjs/swagger';
import type { ValueSetShape } from '@haycart/api';
import { setsUsed, VALUE_SET_LIMITS } from '@haycart/core';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsOptional, IsString, Length, ValidateNested } from 'class-validator';
import { ByCaller, type Caller } from '../platform/auth/caller';
import { Command, InTransaction, Reads } from '../platform/commands/command';
import { Database, type WorkspaceTx } from '../platform/database/database';
import { ProblemError } from '../platform/errors/problem-error';
import { RoutesService } from '../routes/routes.service';
import { ValueSetsService, type KeyedValueSet } from '../value-sets/value-sets.service';

class ValueSetDto {
  @ApiProperty() @IsString() @Length(1, 80) name: string;
  @ApiProperty({ type: [String], description: 'A text each, or a country with or without postal codes' })
  @IsArray()
  @ArrayMaxSize(VALUE_SET_LIMITS.values)
  @IsString({ each: true })
  @Length(0, VALUE_SET_LIMITS.length, { each: true })
  values: string[];
}

class ValueSetsDto {
  @ApiProperty({ type: [ValueSetDto] })
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ValueSetDto)
  sets: ValueSetDto[];
}

class ValueSetChangeDto {
  @ApiPropertyOptional() @IsOptional() @IsString() @Length(1, 80) name?: string;
  @ApiPropertyOptional({ type: [String] })
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(VALUE_SET_LIMITS.values)
  @IsString({ each: true })
  @Length(0, VALUE_SET_LIMITS.length, { each: true })
  values?: string[];
}

/** Named sets of values for the cells of decision tables, and which routes use them. */
@ApiTags('value-sets')
@Controller('api/v1/value-sets')
export class ValueSetsController {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RoutesService) private readonly routes: RoutesService,
    @Inject(ValueSetsService) private readonly sets: ValueSetsService,
  ) {}

  @Get()
  @Reads('set-up', 'Lists value sets')
  all(@ByCaller() { workspaceId }: Caller): Promise<ValueSetShape[]> {
    return this.database.inWorkspace(workspaceId, async (tx) => {
      const users = await this.#users(tx);
      return (await this.sets.all(tx)).map((set) => shapeOf(set, users));
    });
  }

  @Post()
  @Command('set-up.add-value-set', 'Adds a value set')
  @HttpCode(201)
  async add(@InTransaction() tx: WorkspaceTx, @Body() made: ValueSetDto): Promise<ValueSetShape> {
    return shapeOf(await this.sets.add(tx, { name: made.name, values: made.values }), []);
  }

  /** Sets that are there by name get these values in the place of theirs; others are added. */
  @Post('import')
  @Command('set-up.import-value-sets', 'Replaces value sets')
  @HttpCode(200)
  async bring(@InTransaction() tx: WorkspaceTx, @Body() { sets }: ValueSetsDto): Promise<ValueSetShape[]> {
    const users = await this.#users(tx);
    return (await this.sets.replace(tx, sets)).map((set) => shapeOf(set, users));
  }

  @Patch(':key')
  @Command('set-up.change-value-set', 'Changes a value set')
  async change(
    @InTransaction() tx: WorkspaceTx,
    @Param('key') key: string,
    @Body() change: ValueSetChangeDto,
  ): Promise<ValueSetShape> {
    return shapeOf(await this.sets.change(tx, key, change), await this.#users(tx));
  }

  /** A set that a running route needs stays: without it that route could decide nothing. */
  @Delete(':key')
  @Command('set-up.remove-value-set', 'Removes a value set')
  @HttpCode(204)
  async remove(@InTransaction() tx: WorkspaceTx, @Param('key') key: string): Promise<void> {
    const { name, usedBy } = shapeOf(await this.sets.one(tx, key), await this.#users(tx));
    if (usedBy.length)
      throw new ProblemError(
        'conflict',
        `“${name}” is used by ${usedBy.join(', ')}. Take it out of the tables there first, and publish.`,
      );
    await this.sets.remove(tx, key);
  }

  /** The routes whose draft or running version names sets. */
  async #users(tx: WorkspaceTx): Promise<{ name: string; sets: ReadonlySet<string> }[]> {
    return (await this.routes.definitions(tx)).map(({ name, draft, published }) => ({
      name,
      sets: new Set([...setsUsed(draft), ...(published ? setsUsed(published) : [])]),
    }));
  }
}

function shapeOf(
  { key, name, values }: KeyedValueSet,
  users: readonly { name: string; sets: ReadonlySet<string> }[],
): ValueSetShape {
  return { key, name, values: [...values], usedBy: users.flatMap((user) => (user.sets.has(key) ? user.name : [])) };
}
