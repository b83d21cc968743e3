import { applyDecorators } from '@nestjs/common';
import { ApiPropertyOptional } from '@nestjs/swagger';
import { LIMITS } from '@haycart/core';
import { IsInt, IsOptional, Max, Min } from 'class-validator';

/** How many messages or mails a receiver takes a minute. */
export const PerMinute = () =>
  applyDecorators(
    ApiPropertyOptional({
      nullable: true,
      type: Number,
      description: 'How many it takes a minute; any number where it is null',
    }),
    IsOptional(),
    IsInt(),
    Min(1),
    Max(LIMITS.perMinute.most),
  );
