import { appendFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';

/** Where what statements answer with is written down, for `scripts/check-rows.mjs`; absent: nowhere. */
const FOLDER = process.env.HAYCART_ROWS;

interface Described {
  name?: string;
  handleRowDescription(message: { fields: { name: string; dataTypeID: number }[] }): void;
}

/** Has the columns of every named statement written down once, with the types that the database gives them. */
export function writeDownRows(): void {
  if (!FOLDER) return;
  mkdirSync(FOLDER, { recursive: true });
  const file = join(FOLDER, `${process.pid}.jsonl`);
  const seen = new Set<string>();
  const query = pg.Query.prototype as unknown as Described;
  const handle = query.handleRowDescription;
  query.handleRowDescription = function (this: Described, message) {
    const columns = message.fields.map(({ name, dataTypeID }): [string, number] => [name, dataTypeID]);
    const line = JSON.stringify({ name: this.name, columns });
    if (this.name && !seen.has(line)) {
      seen.add(line);
      appendFileSync(file, `${line}\n`);
    }
    return Reflect.apply(handle, this, [message]) as void;
  };
}
