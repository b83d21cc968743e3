import { applyDecorators } from '@nestjs/common';
import { ApiPropertyOptional } from '@nestjs/swagger';
import { JOURNEY_BASES, SOURCE_PARTS, type JourneyBasis } from '@haycart/api';
import { CREDIT_MODELS, daysOf, RECORD_KINDS, REPORT_PERIODS } from '@haycart/core';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsISO8601, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';
import { ProblemError } from '../platform/errors/problem-error';
import type { ListSetting } from '../records/lists/record-lists.service';
import type { Narrowing } from './narrowing/narrowing';
import { readSplit } from './narrowing/split';
import type { ReportWish } from './report-wish';

const DAY = 86_400_000;
const USUAL_DAYS = 90;
const MOST_DAYS = 3_700;
const MODELS = CREDIT_MODELS.map(({ key }) => key);
/** `channel`, `channel,source`, and so on. */
const BY = new RegExp(`^(${SOURCE_PARTS.map((_, index) => SOURCE_PARTS.slice(0, index + 1).join(',')).join('|')})$`);
const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

const LONGEST_FILTER = 20_000;
const SPLIT = /^(intake|team|(deal|contact|company)\.\w{1,100})$/;

/** A condition on the fields of a kind of record, as JSON. */
function FilterOf(kind: string): PropertyDecorator {
  const description = `A condition on ${kind}s as JSON: what meets it, and what is linked with it`;
  return applyDecorators(ApiPropertyOptional({ description }), IsOptional(), IsString(), MaxLength(LONGEST_FILTER));
}

/** What reports are narrowed to. */
export class NarrowingQuery {
  @ApiPropertyOptional({ description: 'The key of an intake: what arrived there, and the records that it touched' })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  intake?: string;

  @FilterOf('deal') dealFilter?: string;
  @FilterOf('contact') contactFilter?: string;
  @FilterOf('company') companyFilter?: string;
  @FilterOf('lead') leadFilter?: string;
}

/** What a report is asked for. */
export class SourcesQuery extends NarrowingQuery {
  @ApiPropertyOptional({ description: 'The first day, in UTC; 90 days before the last when not said' })
  @IsOptional()
  @Matches(ISO_DAY)
  @IsISO8601({ strict: true })
  from?: string;

  @ApiPropertyOptional({ description: 'The last day, in UTC; today when not said' })
  @IsOptional()
  @Matches(ISO_DAY)
  @IsISO8601({ strict: true })
  to?: string;

  @ApiPropertyOptional({ enum: Object.keys(REPORT_PERIODS), description: 'The period by name, when no days are said' })
  @IsOptional()
  @IsIn(Object.keys(REPORT_PERIODS))
  period?: string;

  @ApiPropertyOptional({ enum: MODELS, description: 'How credit is shared out; `position` when not said' })
  @IsOptional()
  @IsIn(MODELS)
  credit?: string;

  @ApiPropertyOptional({ enum: JOURNEY_BASES, description: 'Whose touches count; `contact` when not said' })
  @IsOptional()
  @IsIn(JOURNEY_BASES)
  basis?: JourneyBasis;

  @ApiPropertyOptional({ description: 'How many days before a deal began touches count; however many when not said' })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(MOST_DAYS)
  window?: number;

  @ApiPropertyOptional({ description: 'For `decay`: so many days earlier a touch counts half; 7 when not said' })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(MOST_DAYS)
  halfLife?: number;

  @ApiPropertyOptional({ description: 'What rows go by, from the outside in, such as `channel,source,campaign`' })
  @IsOptional()
  @Matches(BY)
  by?: string;

  @ApiPropertyOptional({
    description:
      'What the first rows go by: `intake`, `team`, or a field of deals, contacts or companies such as `deal.pipeline`',
  })
  @IsOptional()
  @Matches(SPLIT)
  split?: string;
}

/** @throws ProblemError for a period or split that is none. */
export function wishOf(query: SourcesQuery, { destination }: ListSetting): ReportWish {
  const named =
    query.period && !query.from && !query.to ? daysOf(query.period, Date.now()) : { from: query.from, to: query.to };
  const to = new Date((named.to ? Date.parse(named.to) : Math.floor(Date.now() / DAY) * DAY) + DAY);
  const from = named.from ? new Date(named.from) : new Date(to.getTime() - USUAL_DAYS * DAY);
  const days = (to.getTime() - from.getTime()) / DAY;
  if (days < 1) throw new ProblemError('refused', 'The period ends before it begins.');
  if (days > MOST_DAYS) throw new ProblemError('refused', `A period has at most ${MOST_DAYS} days.`);
  return {
    from,
    to,
    model: query.credit ?? 'position',
    basis: query.basis ?? 'contact',
    window: query.window ?? null,
    halfLife: query.halfLife ?? 7,
    by: (query.by ?? 'channel').split(',') as ReportWish['by'],
    narrowing: narrowingOf(query),
    split: readSplit(query.split, destination),
  };
}

export function narrowingOf(query: NarrowingQuery): Narrowing {
  const filters = RECORD_KINDS.flatMap((kind) => {
    const filter = query[`${kind}Filter`];
    return filter ? [[kind, filter]] : [];
  });
  return { intake: query.intake || undefined, filters: Object.fromEntries(filters) as Narrowing['filters'] };
}
