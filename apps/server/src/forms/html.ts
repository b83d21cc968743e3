/** Text made safe inside HTML elements and quoted attributes. */
export function escape(text: string): string {
  return text.replace(/[&<>"']/g, (mark) => `&#${mark.charCodeAt(0)};`);
}

/** Attributes of an element; those that are false or absent are left out, true stands by its name alone. */
export function attributes(all: Record<string, string | number | boolean | null | undefined>): string {
  return Object.entries(all)
    .map(([name, value]) =>
      value === true ? ` ${name}` : value || value === 0 || value === '' ? ` ${name}="${escape(String(value))}"` : '',
    )
    .join('');
}

/** Words with empty lines as paragraphs. */
export function paragraphs(text: string): string {
  return text
    .split(/\n{2,}/)
    .filter((part) => part.trim())
    .map((part) => `<p>${escape(part.trim()).replaceAll('\n', '<br>')}</p>`)
    .join('');
}
