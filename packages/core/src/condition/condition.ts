/** One test of one thing: `of` names what is tested, `test` an entry of the registry, `value` what it is compared with. */
export interface Clause<Of> {
  of: Of;
  test: string;
  value?: unknown;
  /** Capitals count; otherwise they do not. */
  caseSensitive?: boolean;
}

/** Clauses joined by all, any and not. `Of` is a part in a route, and a field of the record in a list. */
export type ConditionOn<Of> =
  { all: ConditionOn<Of>[] } | { any: ConditionOn<Of>[] } | { not: ConditionOn<Of> } | Clause<Of>;

/** What a list or a saved view tests: a field of the record by its key. */
export interface FieldPart {
  field: string;
}
export type RecordCondition = ConditionOn<FieldPart>;

/** Every clause of a condition, from left to right. */
export function clausesOf<Of>(condition: ConditionOn<Of>): Clause<Of>[] {
  if ('all' in condition) return condition.all.flatMap(clausesOf);
  if ('any' in condition) return condition.any.flatMap(clausesOf);
  if ('not' in condition) return clausesOf(condition.not);
  return [condition];
}

/** The same condition upon other things, such as the questions of a form in the place of the fields of a record. */
export function mapCondition<From, To>(condition: ConditionOn<From>, map: (of: From) => To): ConditionOn<To> {
  if ('all' in condition) return { all: condition.all.map((part) => mapCondition(part, map)) };
  if ('any' in condition) return { any: condition.any.map((part) => mapCondition(part, map)) };
  if ('not' in condition) return { not: mapCondition(condition.not, map) };
  return { ...condition, of: map(condition.of) };
}
