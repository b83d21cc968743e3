import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { PROMISE_MINUTES, type AnswerPromise, type MissedStep } from '@haycart/core';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsOptional, IsString, Length, Max, Min, ValidateIf, ValidateNested } from 'class-validator';

class MissedDto {
  @ApiProperty({ enum: ['task', 'next'], description: 'A task for somebody, or the next of the team' })
  @IsIn(['task', 'next'])
  do: MissedStep['do'];
  @ApiPropertyOptional({ description: 'For whom the task is' })
  @ValidateIf((dto: MissedDto) => dto.do === 'task')
  @IsString()
  @Length(1, 100)
  person?: string;
}

/** How soon something is answered, as it comes over the API. */
export class PromiseDto {
  @ApiProperty({ minimum: PROMISE_MINUTES.least, maximum: PROMISE_MINUTES.most })
  @IsInt()
  @Min(PROMISE_MINUTES.least)
  @Max(PROMISE_MINUTES.most)
  minutes: number;
  @ApiPropertyOptional({ type: MissedDto })
  @IsOptional()
  @ValidateNested()
  @Type(() => MissedDto)
  missed?: MissedDto;
}

/** A promise as it is kept; `null` takes it away, and absent leaves it as it is. */
export function promiseFrom(dto: PromiseDto | null | undefined): AnswerPromise | null | undefined {
  if (!dto) return dto;
  const { minutes, missed } = dto;
  if (!missed) return { minutes };
  return { minutes, missed: missed.do === 'task' ? { do: 'task', person: missed.person! } : { do: 'next' } };
}
