import { ValidationPipe, type ValidationError } from '@nestjs/common';
import type { ProblemAt } from '@haycart/api';
import { ProblemError } from './problem-error';

/** Checks request bodies and queries against their DTOs; unknown properties are errors, not ignored. */
export const validation = new ValidationPipe({
  transform: true,
  whitelist: true,
  forbidNonWhitelisted: true,
  exceptionFactory: (errors) =>
    new ProblemError(
      'refused',
      'Some of what was sent does not fit.',
      errors.flatMap((error) => places(error, '')),
    ),
});

function places(error: ValidationError, before: string): ProblemAt[] {
  const at = `${before}/${error.property.replace(/~/g, '~0').replace(/\//g, '~1')}`;
  const own = Object.entries(error.constraints ?? {}).map(([constraint, message]): ProblemAt => ({
    at,
    code: constraint === 'whitelistValidation' ? 'unknown-property' : 'wrong-value',
    message: `${message}.`,
  }));
  return [...own, ...(error.children ?? []).flatMap((child) => places(child, at))];
}
