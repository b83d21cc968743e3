/** Of a record’s name as a rehearsal gives it, `contact 12 Ada Weir`, what people call it: `Ada Weir`. */
export function nameAlone(name: string): string {
  return name.split(' ').slice(2).join(' ');
}
