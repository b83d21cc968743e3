import { z } from '../../schema-library';
import type { Finisher } from './finisher';

/** One parameter of a finisher, as an editor asks for it. */
export interface FinisherParameter {
  name: string;
  title: string;
  /** `answer`: the key of another answer. `table`: from values to what is put in their place. */
  kind: 'choice' | 'number' | 'text' | 'answer' | 'table';
  /** For `choice`. */
  choices: string[];
  /** What holds while nothing is said; `undefined` where it must be said or may be left out. */
  otherwise: string | number | undefined;
}

interface ParameterSchema {
  title?: string;
  type?: string;
  enum?: string[];
  default?: string | number;
  answer?: boolean;
}

/** The parameters of a finisher, in the order in which they are asked for. */
export function finisherParameters({ parameters }: Finisher): FinisherParameter[] {
  const { properties = {} } = z.toJSONSchema(parameters, { io: 'input' }) as {
    properties?: Record<string, ParameterSchema>;
  };
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    title: schema.title ?? name,
    kind: kindOf(schema),
    choices: schema.enum ?? [],
    otherwise: typeof schema.default === 'object' ? undefined : schema.default,
  }));
}

function kindOf({ enum: choices, type, answer }: ParameterSchema): FinisherParameter['kind'] {
  if (choices) return 'choice';
  if (answer) return 'answer';
  if (type === 'integer' || type === 'number') return 'number';
  return type === 'object' ? 'table' : 'text';
}
