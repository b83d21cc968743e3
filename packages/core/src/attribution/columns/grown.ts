type Column = Int8Array | Uint8Array | Uint16Array | Int32Array | Float64Array;

/** Returns a column that holds at least so many, with what is in it; a quarter more, so that growing step by step stays cheap. */
export function grown<Kind extends Column>(column: Kind, least: number): Kind {
  if (column.length >= least) return column;
  const larger = new (column.constructor as new (length: number) => Kind)(least + (least >> 2));
  larger.set(column);
  return larger;
}
