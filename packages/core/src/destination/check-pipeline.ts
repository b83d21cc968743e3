import { jsonPointer } from '../json';
import { error, type Problem } from '../problem';
import type { Pipeline } from './destination';

const LONGEST_NAME = 100;
/** The limits of what a stage says about what stands in it. */
export const STAGE_LIMITS = { probability: { least: 0, most: 100 }, stuckAfter: { least: 1, most: 3_650 } } as const;

/** What is wrong with a pipeline as it would be kept. */
export function checkPipeline(pipeline: Pipeline): Problem[] {
  const { stages, defaultStage } = pipeline;
  const problems = [...checkName(pipeline.name, ['name'])];
  stages.forEach((stage, index) => {
    const way = ['stages', index];
    problems.push(...checkName(stage.name, [...way, 'name']));
    const other = stages.findIndex(({ name }) => sameName(name, stage.name));
    if (other < index)
      problems.push(
        error(
          'name-taken',
          `Two stages are called “${stage.name}”. Give one another name.`,
          jsonPointer([...way, 'name']),
        ),
      );
    problems.push(...checkRange(stage.probability, 'probability', 'The probability', 'percent', way));
    problems.push(...checkRange(stage.stuckAfter, 'stuckAfter', 'The age at which something is stuck', 'days', way));
  });
  if (!stages.some(({ state }) => state === 'open'))
    problems.push(error('no-open-stage', `${pipeline.name} needs a stage that is open.`, '/stages'));
  if (defaultStage !== undefined && !stages.some(({ key, state }) => key === defaultStage && state === 'open'))
    problems.push(error('default-not-open', 'What is new can only begin in a stage that is open.', '/defaultStage'));
  return problems;
}

function checkName(name: string, way: (string | number)[]): Problem[] {
  if (name.trim() === '') return [error('name-blank', 'A name is needed.', jsonPointer(way))];
  if (name.length > LONGEST_NAME)
    return [error('name-too-long', `A name has at most ${LONGEST_NAME} characters.`, jsonPointer(way))];
  return [];
}

function checkRange(
  value: number | undefined,
  key: keyof typeof STAGE_LIMITS,
  what: string,
  unit: string,
  way: (string | number)[],
): Problem[] {
  const { least, most } = STAGE_LIMITS[key];
  if (value === undefined || (Number.isInteger(value) && value >= least && value <= most)) return [];
  return [
    error('out-of-range', `${what} is a whole number of ${unit} from ${least} to ${most}.`, jsonPointer([...way, key])),
  ];
}

function sameName(a: string, b: string): boolean {
  return a.trim().toLowerCase() === b.trim().toLowerCase();
}
