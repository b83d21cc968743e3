import { ApiProperty, type ApiPropertyOptions } from '@nestjs/swagger';
import { getMetadataStorage } from 'class-validator';

/** What class-validator knows of one property; see its ValidationMetadata. */
interface Rule {
  propertyName: string;
  type: string;
  name?: string;
  constraints?: unknown[];
  each?: boolean;
}

/** Under which key the library for OpenAPI keeps the names of the properties that it knows of, each after a colon. */
const KNOWN = 'swagger/apiModelPropertiesArray';

/**
 * Lets the description of the API have every property that a request is checked for, as it is checked.
 *
 * @throws Error for a property that holds objects of a class and does not say of which.
 */
export function describeCheckedProperties(): void {
  const { validationMetadatas } = getMetadataStorage() as unknown as {
    validationMetadatas: Map<{ prototype: object }, Rule[]>;
  };
  for (const [{ prototype }, rules] of validationMetadatas) {
    const known = new Set((Reflect.getMetadata(KNOWN, prototype) as string[] | undefined) ?? []);
    for (const name of new Set(rules.map(({ propertyName }) => propertyName)))
      if (!known.has(`:${name}`)) ApiProperty(optionsOf(prototype, name, rules))(prototype, name);
  }
}

function optionsOf(prototype: object, name: string, all: readonly Rule[]): ApiPropertyOptions {
  const rules = all.filter(({ propertyName }) => propertyName === name);
  if (rules.some(({ type }) => type === 'nestedValidation'))
    throw new Error(`${prototype.constructor.name}.${name} holds objects: say by @ApiProperty of which class.`);
  const rule = (wanted: string) => rules.find((one) => one.name === wanted);
  const required = !rules.some(({ type }) => type === 'conditionalValidation');
  const choices = rule('isIn')?.constraints?.[0] as string[] | undefined;
  if (choices) return { required, enum: [...choices] };
  const format = rule('isUuid') ? 'uuid' : rule('isIso8601') ? 'date-time' : undefined;
  const isArray = rules.some(({ each }) => each === true) || rule('isArray') !== undefined;
  const type = isArray ? String : (Reflect.getMetadata('design:type', prototype, name) as ApiPropertyOptions['type']);
  return { required, isArray, type: type ?? Object, ...(format ? { format } : {}) } as ApiPropertyOptions;
}
