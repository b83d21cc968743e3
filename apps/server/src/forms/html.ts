/** Text that is HTML already. It comes from `markup`, which escapes, or from `trusted`. */
export class Html {
  constructor(private readonly text: string) {}

  toString(): string {
    return this.text;
  }
}

/** What can stand in a template: text is escaped, what is HTML already stands as it is, and what is not there is left out. */
export type Piece = Html | string | number | null | undefined | false | readonly Piece[];

/** HTML with every text in it made safe: markup`<b>${name}</b>`. */
export function markup(words: TemplateStringsArray, ...pieces: readonly Piece[]): Html {
  let text = words[0]!;
  for (let index = 0; index < pieces.length; index += 1) text += written(pieces[index]) + words[index + 1]!;
  return new Html(text);
}

/** HTML that somebody wrote who may write any: a style or script of ours, or a snippet of the workspace. */
export function trusted(text: string): Html {
  return new Html(text);
}

/** Pieces one after the other, with something between them. */
export function joined(pieces: readonly Piece[], between = ''): Html {
  return new Html(
    pieces
      .map(written)
      .filter((text) => text !== '')
      .join(between),
  );
}

/** Attributes of an element; those that are false or absent are left out, true stands by its name alone. */
export function attributes(all: Record<string, string | number | boolean | null | undefined>): Html {
  let text = '';
  for (const [name, value] of Object.entries(all)) {
    if (value === true) text += ` ${name}`;
    else if (value || value === 0 || value === '') text += ` ${name}="${escaped(String(value))}"`;
  }
  return new Html(text);
}

/** Words with empty lines as paragraphs. */
export function paragraphs(text: string): Html {
  return joined(
    text
      .split(/\n{2,}/)
      .filter((part) => part.trim())
      .map((part) => markup`<p>${joined(part.trim().split('\n'), '<br>')}</p>`),
  );
}

function written(piece: Piece): string {
  if (piece instanceof Html) return piece.toString();
  if (piece === null || piece === undefined || piece === false) return '';
  if (typeof piece === 'string' || typeof piece === 'number') return escaped(String(piece));
  let text = '';
  for (const one of piece) text += written(one);
  return text;
}

const UNSAFE = /[&<>"']/;
const EACH_UNSAFE = /[&<>"']/g;

/** Text made safe inside elements and quoted attributes. */
function escaped(text: string): string {
  return UNSAFE.test(text) ? text.replace(EACH_UNSAFE, (mark) => `&#${mark.charCodeAt(0)};`) : text;
}
