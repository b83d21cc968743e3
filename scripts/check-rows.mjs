// Compares the rows that statements of the server are said to give with what the database gave for them while the server's
// tests ran: check-rows.mjs FOLDER. Prints what differs, and what no test asked for; answers 1 where something differs.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import ts from 'typescript';

/** What the driver makes of a type of PostgreSQL, by its id. */
const GIVEN = {
  boolean: [16],
  buffer: [17],
  // The driver gives 64 bits and exact numbers as text.
  string: [18, 19, 20, 25, 28, 705, 1042, 1043, 1700, 2950, 3220, 5069],
  number: [21, 23, 26, 700, 701],
  date: [1082, 1114, 1184],
  json: [114, 3802],
  array: [199, 1000, 1005, 1007, 1009, 1015, 1016, 1021, 1022, 1115, 1182, 1185, 1231, 2951, 3807],
};
const givenFor = new Map(Object.entries(GIVEN).flatMap(([given, ids]) => ids.map((id) => [id, given])));

const tell = (line) => process.stderr.write(`${line}\n`);

const folder = process.argv[2];
const seen = new Map();
for (const file of readdirSync(folder))
  for (const line of readFileSync(join(folder, file), 'utf8').split('\n').filter(Boolean)) {
    const { name, columns } = JSON.parse(line);
    seen.set(name, [...(seen.get(name) ?? []), new Map(columns)]);
  }

const config = 'apps/server/tsconfig.json';
const { config: json } = ts.readConfigFile(config, ts.sys.readFile);
const parsed = ts.parseJsonConfigFileContent(json, ts.sys, dirname(config));
const program = ts.createProgram({
  rootNames: parsed.fileNames,
  options: { ...parsed.options, noEmit: true },
  projectReferences: parsed.projectReferences,
});
const checker = program.getTypeChecker();

/** What a property may hold, as the driver gives it; `any` for what is not told. */
function holds(type) {
  const parts = type.isUnion() ? type.types : [type];
  return new Set(
    parts.flatMap((part) => {
      if (part.flags & (ts.TypeFlags.Null | ts.TypeFlags.Undefined)) return [];
      if (part.flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown)) return ['any'];
      if (part.flags & ts.TypeFlags.StringLike) return ['string'];
      if (part.flags & ts.TypeFlags.NumberLike) return ['number'];
      if (part.flags & ts.TypeFlags.BooleanLike) return ['boolean'];
      if (checker.isArrayType(part) || checker.isTupleType(part)) return ['array'];
      const name = part.getSymbol()?.getName();
      return [name === 'Date' ? 'date' : name === 'Buffer' ? 'buffer' : 'json'];
    }),
  );
}

/** The name of a statement as a pattern: what is put into it may be anything. */
function patternOf(node) {
  if (ts.isStringLiteralLike(node)) return node.text;
  if (!ts.isTemplateExpression(node)) return null;
  const quote = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  return new RegExp(
    `^${quote(node.head.text)}${node.templateSpans.map(({ literal }) => `.*${quote(literal.text)}`).join('')}$`,
  );
}

/** A call that asks for rows by a name, with the type that these are said to be of; null for any other call. */
function askedIn(call, source) {
  const method = ts.isPropertyAccessExpression(call.expression) ? call.expression.name.text : '';
  const [said] = call.typeArguments ?? [];
  if ((method !== 'statement' && method !== 'gate') || !said || !call.arguments[0]) return null;
  const name = patternOf(call.arguments[0]);
  if (name === null) return null;
  const { line } = source.getLineAndCharacterOfPosition(call.getStart());
  const at = `${relative('.', source.fileName)}:${line + 1}`;
  return { at, said, name: method === 'gate' && typeof name === 'string' ? `gate_${name}` : name };
}

const asked = [];
for (const source of program.getSourceFiles())
  if (/apps\/server\/src\/(?!.*\.test\.)/.test(source.fileName))
    (function visit(node) {
      const found = ts.isCallExpression(node) && askedIn(node, source);
      if (found) asked.push(found);
      ts.forEachChild(node, visit);
    })(source);

const names = new Set(asked.map(({ name }) => name));
/** What the database gave under a name. What fits a pattern and is the name of another statement is of that one. */
function rowsOf(name) {
  if (typeof name === 'string') return seen.get(name) ?? [];
  return [...seen].filter(([other]) => name.test(other) && !names.has(other)).flatMap(([, rows]) => rows);
}

/** How what is said of a row differs from its columns. */
function differences({ said }, columns) {
  return checker.getPropertiesOfType(checker.getTypeFromTypeNode(said)).flatMap((property) => {
    const name = property.getName();
    const id = columns.get(name);
    if (id === undefined) return property.flags & ts.SymbolFlags.Optional ? [] : [`there is no column ${name}`];
    const given = givenFor.get(id) ?? `of the type ${id}`;
    const may = holds(checker.getTypeOfSymbol(property));
    return given === 'json' || may.has('any') || may.has(given)
      ? []
      : [`${name} is ${given}, not ${[...may].join(' or ') || 'never there'}`];
  });
}

let wrong = 0;
let checked = 0;
for (const one of asked) {
  const rows = rowsOf(one.name);
  if (rows.length) checked += 1;
  else tell(`no test asks for ${one.name}, ${one.at}`);
  for (const difference of new Set(rows.flatMap((columns) => differences(one, columns)))) {
    wrong += 1;
    tell(`differs: ${one.at}, ${one.name}: ${difference}`);
  }
}
tell(`${checked} of ${asked.length} statements give the rows that they are said to, but for ${wrong} differences`);
process.exit(wrong || !checked ? 1 : 0);
