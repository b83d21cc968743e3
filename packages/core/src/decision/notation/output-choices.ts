import { fieldOf, type Destination } from '../../destination/destination';
import type { FieldOption } from '../../field/field-definition';
import { againWords, WHEN_MATCHED_WORDS } from '../known-words';
import type { OutputType } from '../decision-table';

function choicesOf(words: Readonly<Record<string, string>>): FieldOption[] {
  return Object.entries(words).map(([key, label]) => ({ key, label }));
}

/** What can be said by name in the outputs of a type; empty where anything can. */
export function outputChoices(type: OutputType, destination: Destination): FieldOption[] {
  const people = fieldOf(destination, 'contact', 'owner')?.options ?? [];
  const teams = Object.entries(destination.teams ?? {}).map(([key, { name }]) => ({ key, label: name }));
  switch (type) {
    case 'pipeline':
      return destination.pipelines.map(({ key, name }) => ({ key, label: name }));
    case 'stage': {
      const stages = destination.pipelines.flatMap((pipeline) => pipeline.stages);
      return [...new Map(stages.map(({ key, name }) => [key, { key, label: name }])).values()];
    }
    case 'person':
      return people;
    case 'team':
      return teams;
    case 'owner':
      return [...people, ...teams];
    case 'tag':
      return fieldOf(destination, 'contact', 'tags')?.options ?? [];
    case 'list':
      return fieldOf(destination, 'contact', 'lists')?.options ?? [];
    case 'when-matched':
      return choicesOf(WHEN_MATCHED_WORDS);
    case 'again':
      return choicesOf(againWords('one'));
    case 'text':
    case 'number':
    case 'yes-no':
      return [];
  }
}
