const TOLD_BY = ['utm_source', 'utm_medium', 'utm_campaign'] as const;
const WHOLE = [...TOLD_BY, 'utm_term', 'utm_content'] as const;

/** The indexed digest of a link's campaign and source, which may be too long for an index themselves. */
function keyOf(parameters: string): string {
  return `md5(coalesce(${parameters} ->> 'utm_campaign', '') || chr(31) || coalesce(${parameters} ->> 'utm_source', ''))`;
}

function saysSame(names: readonly string[], parameters: string): string {
  const same = names.map((name) => `coalesce(w.way ->> '${name}', '') = coalesce(${parameters} ->> '${name}', '')`);
  return [`${keyOf('w.way')} = ${keyOf(parameters)}`, ...same].join(' and ');
}

/** SQL: whether a way `w` has the same source, medium and campaign. */
export function sameLink(parameters: string): string {
  return saysSame(TOLD_BY, parameters);
}

/** SQL: whether a way `w` has the same value in every campaign parameter. */
export function sameLinkWholly(parameters: string): string {
  return saysSame(WHOLE, parameters);
}
