/**
 * Writes `dist/api-answers.json`: what each call of the API answers, as JSON Schema (2020-12), read from the return types
 * of the controllers' methods, which are the types that the web application uses. `operations` names the schema of each
 * call by its operation id; `schemas` has them.
 */
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createGenerator } from 'ts-json-schema-generator';
import ts from 'typescript';

const server = fileURLToPath(new URL('..', import.meta.url));
const HTTP = new Set(['Get', 'Post', 'Put', 'Patch', 'Delete']);

const imports = new Map();
const answers = new Map();
for (const file of readdirSync(join(server, 'src'), { recursive: true }).filter((name) =>
  name.endsWith('.controller.ts'),
))
  read(join('src', file));

const entry = join(server, '.tsc', 'api-answers.ts');
mkdirSync(dirname(entry), { recursive: true });
writeFileSync(entry, entryText());
const { definitions = {} } = createGenerator({
  path: entry,
  tsconfig: join(server, 'tsconfig.json'),
  type: 'Answers',
  expose: 'export',
  topRef: true,
  jsDoc: 'basic',
  skipTypeCheck: true,
  additionalProperties: true,
  encodeRefs: false,
}).createSchema('Answers');
rmSync(entry);

const { properties } = definitions.Answers;
delete definitions.Answers;
const named = JSON.stringify({ operations: properties, schemas: definitions }).replaceAll(
  '#/definitions/',
  '#/components/schemas/',
);
writeFileSync(join(server, 'dist', 'api-answers.json'), clean(named));

/** Notes the methods of a controller that answer something, and where the names in their types come from. */
function read(file) {
  const path = join(server, file);
  const source = ts.createSourceFile(path, ts.sys.readFile(path), ts.ScriptTarget.Latest, true);
  const known = new Map();
  const own = new Set();
  for (const statement of source.statements) {
    if (ts.isImportDeclaration(statement)) noteImports(statement, path, known);
    if (ts.isInterfaceDeclaration(statement) || ts.isTypeAliasDeclaration(statement)) own.add(statement.name.text);
    if (!ts.isClassDeclaration(statement)) continue;
    const parent = statement.heritageClauses?.[0]?.types[0]?.expression.getText();
    for (const [name, type] of [...answers])
      if (parent && name.startsWith(`${parent}_`)) answers.set(name.replace(parent, statement.name.text), type);
    for (const method of statement.members.filter(ts.isMethodDeclaration)) {
      const verbs = (ts.getDecorators(method) ?? []).map(({ expression }) => expression.expression?.text);
      const type = answered(method.type);
      if (!type || !verbs.some((verb) => HTTP.has(verb))) continue;
      answers.set(`${statement.name.text}_${method.name.text}`, type.getText());
      forEachName(type, (name) => {
        const from = known.get(name) ?? (own.has(name) ? path : null);
        if (from) imports.set(name, from);
      });
    }
  }
}

function noteImports({ importClause, moduleSpecifier }, path, known) {
  const names = importClause?.namedBindings;
  if (!names || !ts.isNamedImports(names)) return;
  const { text } = moduleSpecifier;
  const from = text.startsWith('.') ? resolve(dirname(path), `${text}.ts`) : text;
  for (const { name } of names.elements) known.set(name.text, from);
}

/** What is promised, where it is something. */
function answered(type) {
  if (!type || !ts.isTypeReferenceNode(type) || type.typeName.getText() !== 'Promise') return null;
  const [inner] = type.typeArguments ?? [];
  return inner && inner.kind !== ts.SyntaxKind.VoidKeyword ? inner : null;
}

function forEachName(node, take) {
  if (ts.isTypeReferenceNode(node)) take(node.typeName.getText());
  ts.forEachChild(node, (child) => forEachName(child, take));
}

function entryText() {
  const lines = [...imports].map(([name, from]) => {
    const module = from.startsWith('/') ? relative(dirname(entry), from).replace(/\.ts$/, '') : from;
    return `import type { ${name} } from '${module.startsWith('.') || !from.startsWith('/') ? module : `./${module}`}';`;
  });
  const members = [...answers].map(([name, type]) => `  ${name}: ${type};`);
  return `${lines.join('\n')}\nexport interface Answers {\n${members.join('\n')}\n}\n`;
}

/** The same with names that a schema may have: `Page<AuditLine>` is `PageOfAuditLine`. */
function clean(text) {
  const names = new Map();
  for (const name of Object.keys(definitions)) names.set(name, name.replace(/</g, 'Of').replace(/[^A-Za-z0-9]+/g, ''));
  return [...names]
    .sort(([a], [b]) => b.length - a.length)
    .reduce((all, [from, to]) => (from === to ? all : all.replaceAll(JSON.stringify(from).slice(1, -1), to)), text);
}
