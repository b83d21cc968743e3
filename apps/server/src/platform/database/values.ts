/** The values of a statement; each is added under the next number. */
export class Values {
  constructor(readonly all: unknown[] = []) {}

  add(value: unknown, type = ''): string {
    this.all.push(value);
    return `$${this.all.length}${type && `::${type}`}`;
  }
}
