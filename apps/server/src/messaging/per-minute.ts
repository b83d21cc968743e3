import { applyDecorators } from '@nestjs/common';
import { ApiPropertyOptional } from '@nestjs/swagger';
import { LIMITS } from '@haycart/core';
import { IsInt, IsOptional, Max, Min } from 'class-validator';

const message = `Type a whole number from 1 to ${LIMITS.perMinute.most}, or nothing.`;

/** How many messages or mails a receiver takes a minute. */
export const PerMinute = () =>
  applyDecorators(
    ApiPropertyOptional({
      nullable: true,
      type: Number,
      description: 'How many it takes a minute; any number where it is null',
    }),
    IsOptional(),
    IsInt({ message }),
    Min(1, { message }),
    Max(LIMITS.perMinute.most, { message }),
  );
