import { SOURCE_SPLIT_INTAKE, type SourcesReport } from '@haycart/api';
import { showFieldValue, type Destination, type FieldDefinition } from '@haycart/core';
import type { WorkspaceTx } from '../../platform/database/database';
import type { Split } from './split';

/** What a split is called, and each of its values that has a name of its own. */
export async function splitWords(
  tx: WorkspaceTx,
  split: Split,
  destination: Destination,
): Promise<NonNullable<SourcesReport['split']>> {
  if (split !== SOURCE_SPLIT_INTAKE && 'teams' in split)
    return {
      label: 'Team',
      names: Object.fromEntries(Object.entries(split.teams).map(([key, { name }]) => [key, name])),
    };
  if (split !== SOURCE_SPLIT_INTAKE) return { label: split.label, names: namesOf(split, destination) };
  const intakes = await tx.statement<{ key: string; name: string }>(
    'intakes_named',
    'select key, name from intake where workspace_id = $1',
    [tx.workspaceId],
  );
  return { label: 'Intake', names: Object.fromEntries(intakes.map(({ key, name }) => [key, name])) };
}

function namesOf(field: FieldDefinition, { pipelines }: Destination): Record<string, string> {
  const named = { pipeline: pipelines, stage: pipelines.flatMap(({ stages }) => stages) };
  if (field.builtIn && (field.key === 'pipeline' || field.key === 'stage'))
    return Object.fromEntries(named[field.key].map(({ key, name }) => [key, name]));
  const values = field.type === 'yes-no' ? ['true', 'false'] : (field.options ?? []).map(({ key }) => key);
  return Object.fromEntries(values.map((key) => [key, showFieldValue(field, key)]));
}
