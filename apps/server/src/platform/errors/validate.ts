import { ValidationPipe, type ArgumentMetadata, type ValidationError } from '@nestjs/common';
import type { ProblemAt } from '@haycart/api';
import { jsonPointer } from '@haycart/core';
import { ProblemError } from './problem-error';

/** The library that makes DTOs takes what stands under this name for the class of the object around it, and breaks. */
const NO_KEY = 'constructor';

class Validation extends ValidationPipe {
  override async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const at = metadata.type === 'body' && value instanceof Object ? wayToConstructor(value) : null;
    if (at !== null) {
      const message = `Inside what is sent nothing can be called “${NO_KEY}”.`;
      throw new ProblemError('refused', message, [{ at, code: 'wrong-value', message }]);
    }
    return super.transform(value, metadata) as Promise<unknown>;
  }
}

/** Something that was sent, and where: the way is put together only where it is told, since it may be very long. */
interface Place {
  value: unknown;
  key: string;
  within: Place | null;
}

/** Where a property inside of others has that name, as a JSON pointer (RFC 6901); `null` where none has. */
function wayToConstructor(value: unknown): string | null {
  const waiting: Place[] = [{ value, key: '', within: null }];
  for (let place = waiting.pop(); place; place = waiting.pop())
    for (const [key, inside] of Object.entries(place.value as object)) {
      if (key === NO_KEY && place.within) return pointerTo({ value: inside, key, within: place });
      if (typeof inside === 'object' && inside !== null) waiting.push({ value: inside, key, within: place });
    }
  return null;
}

function pointerTo(place: Place): string {
  const way: string[] = [];
  for (let at: Place = place; at.within; at = at.within) way.push(at.key);
  return jsonPointer(way.reverse());
}

/** Checks request bodies and queries against their DTOs; unknown properties are errors, not ignored. */
export const validation = new Validation({
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
