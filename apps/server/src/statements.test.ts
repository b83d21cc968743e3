import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@jest/globals';
import ts from 'typescript';

const SOURCES = dirname(fileURLToPath(import.meta.url));

/** What names things, and may be joined by any area; all else of an area is asked for by its services. */
const OPEN = [
  'company',
  'contact',
  'deal',
  'intake',
  'lead',
  'person',
  'pipeline',
  'route',
  'run',
  'stage',
  'submission',
  'workspace',
];

/** Tables of other areas that an area reads nevertheless, each for a reason. Nobody but their area writes any. */
const READ: Record<string, { why: string; tables: string[] }> = {
  attribution: {
    why: 'Which touches led to which deal, and what came of each source, is summed up in one statement over all records.',
    tables: [
      'assignment',
      'attempt',
      'contact',
      'deal',
      'form_count',
      'lead',
      'record_link',
      'stage_move',
      'campaign',
      'campaign_cost',
      'touch',
      'touch_source',
      'touch_way',
      'visit',
    ],
  },
  campaigns: {
    why: 'What came by a link is counted where visits are kept.',
    tables: ['touch', 'touch_way', 'visit'],
  },
  forms: {
    why: 'What became of all that was sent by a form is counted in one statement.',
    tables: ['attempt', 'deal', 'touch'],
  },
  identity: {
    why: 'What two records have is compared, merged and parted in one statement each, for thousands of pairs.',
    tables: [
      'likeness_model',
      'list_membership',
      'note',
      'record_change',
      'record_edit',
      'record_file',
      'record_link',
      'record_merge',
      'task',
      'touch',
      'visit',
    ],
  },
  outbox: {
    why: 'A mail has attached what its visitor sent, and a reminder goes while nobody has answered.',
    tables: ['asked', 'submission_file'],
  },
  records: {
    why: 'The page of a record shows files and words of its submissions and what was sent about it; touches count while their attempt stands.',
    tables: ['attempt', 'outbox', 'submission_file', 'submission_search'],
  },
  reports: {
    why: 'Home, the list of intakes and finding show a little of everything in one answer.',
    tables: [
      'acknowledged_count',
      'arrival_count',
      'file_usage',
      'record_merge',
      'route_version',
      'touch_source',
      'visit',
    ],
  },
  runs: {
    why: 'A take back looks at all that was written since, for thousands of runs at once.',
    tables: ['consent', 'note', 'record_change', 'record_edit', 'record_file', 'task'],
  },
};

const files = readdirSync(SOURCES, { recursive: true, encoding: 'utf8' })
  .filter((path) => path.endsWith('.ts') && !path.endsWith('.test.ts'))
  .map((path) => path.split(sep).join('/'));
const areaOf = (path: string) => (path.includes('/') ? path.split('/')[0]! : '.');

/** The area of each table. */
const tables = new Map(
  files
    .filter((path) => path.endsWith('tables.ts'))
    .flatMap((path) =>
      [...readFileSync(join(SOURCES, path), 'utf8').matchAll(/pgTable\(\s*'(\w+)'/g)].map(
        ([, name]) => [name!, areaOf(path)] as const,
      ),
    ),
);

interface Use {
  file: string;
  area: string;
  table: string;
  writes: boolean;
}

/** What the texts of a file say to the database about tables of other areas. What is no text, such as a comment, says nothing. */
function usesIn(file: string): Use[] {
  const source = ts.createSourceFile(file, readFileSync(join(SOURCES, file), 'utf8'), ts.ScriptTarget.Latest);
  const texts: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isStringLiteralLike(node)) texts.push(node.text);
    if (ts.isTemplateExpression(node))
      texts.push([node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join(' ? '));
    ts.forEachChild(node, visit);
  };
  visit(source);
  const area = areaOf(file);
  return texts.flatMap((text) =>
    [...text.matchAll(/\b(insert into|update|delete from|from|join|into|using)\s+([a-z_]+)\b/g)].flatMap(
      ([, verb, table]) => {
        const owner = tables.get(table!);
        if (!owner || owner === area) return [];
        return [{ file, area, table: table!, writes: /insert|update|delete/.test(verb!) }];
      },
    ),
  );
}

const uses = files.filter((path) => !path.endsWith('tables.ts') && areaOf(path) !== '.').flatMap(usesIn);
const told = ({ file, table }: Use) => `${relative('.', file)}: ${table}`;

test('an area writes into its own tables alone', () => {
  expect(tables.size).toBeGreaterThan(60);
  expect(uses.filter(({ writes }) => writes).map(told)).toEqual([]);
});

test('an area reads what names things, its own tables, and what is allowed it for a reason', () => {
  const refused = uses.filter(({ area, table }) => !OPEN.includes(table) && !READ[area]?.tables.includes(table));
  expect(uses.length).toBeGreaterThan(50);
  expect(refused.map(told)).toEqual([]);
});

test('nothing is allowed that nobody needs', () => {
  const unused = Object.entries(READ).flatMap(([area, { tables: allowed }]) =>
    allowed
      .filter((table) => !uses.some((use) => use.area === area && use.table === table))
      .map((table) => `${area}: ${table}`),
  );
  expect(unused).toEqual([]);
  expect(OPEN.filter((table) => !uses.some((use) => use.table === table))).toEqual([]);
});
