import { newKey } from '../field/new-key';
import { trimWhere } from '../text';
import { isQuestion, type FormDefinition, type FormItem } from './definition';
import { renameItem } from './rename-item';

/** One change of a form; every change of the editor is one of these, so that each can be undone. */
export type FormEdit =
  | { do: 'add'; items: readonly FormItem[]; at: number }
  | { do: 'move'; name: string; to: number }
  | { do: 'remove'; name: string }
  | { do: 'change'; name: string; item: FormItem }
  | { do: 'rename'; name: string; to: string }
  | { do: 'set'; part: Partial<Omit<FormDefinition, 'format' | 'items'>> };

/** The form after a change. What does not exist is left alone. */
export function editForm(form: FormDefinition, edit: FormEdit): FormDefinition {
  const { items } = form;
  switch (edit.do) {
    case 'add':
      return { ...form, items: items.toSpliced(edit.at, 0, ...edit.items) };
    case 'move': {
      const from = items.findIndex(({ name }) => name === edit.name);
      if (from === -1) return form;
      return { ...form, items: items.toSpliced(from, 1).toSpliced(edit.to, 0, items[from]!) };
    }
    case 'remove':
      return { ...form, items: items.filter(({ name }) => name !== edit.name) };
    case 'change':
      return { ...form, items: items.map((item) => (item.name === edit.name ? edit.item : item)) };
    case 'rename':
      return renameItem(form, edit.name, edit.to);
    case 'set':
      return withoutBlanks({ ...form, ...edit.part });
  }
}

/** Absent and undefined are one in a stored form. */
function withoutBlanks(form: FormDefinition): FormDefinition {
  return Object.fromEntries(
    Object.entries(form).filter(([, value]) => value !== undefined),
  ) as unknown as FormDefinition;
}

/** A name for a new item that no other has, made from its words: `Wanted by` is `wanted_by`, then `wanted_by_2`. */
export function newItemName(words: string, form: Pick<FormDefinition, 'items'>): string {
  const plain = trimWhere(newKey(words, [], '_').slice(0, 50), (character) => character === '_', 'end');
  return newKey(
    /^[a-z]/.test(plain) ? plain : `q_${plain}`,
    form.items.map(({ name }) => name),
    '_',
  );
}

/** What an item is called in the editor. */
export function itemLabel(item: FormItem): string {
  if (isQuestion(item)) return item.label || item.name;
  return item.text?.split('\n', 1)[0] || item.name;
}

/** What is different between two versions of a form, told in sentences; empty when nothing is. */
export function formChanges(before: FormDefinition, after: FormDefinition): string[] {
  const changes: string[] = [];
  const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
  const renamed = renamedItems(before, after);
  for (const [from, to] of renamed)
    changes.push(
      `The key of “${itemLabel(before.items.find(({ name }) => name === from)!)}” is ${to}, and was ${from}.`,
    );
  for (const [from, to] of renamed) before = renameItem(before, from, to);
  const known = new Map(before.items.map((item) => [item.name, item]));
  const kept = new Set(after.items.map(({ name }) => name));
  for (const item of after.items) {
    const old = known.get(item.name);
    if (!old) changes.push(`${kindOf(item)} “${itemLabel(item)}” is new.`);
    else if (!same(old, item)) changes.push(`${kindOf(item)} “${itemLabel(item)}” is changed.`);
  }
  for (const item of before.items)
    if (!kept.has(item.name)) changes.push(`${kindOf(item)} “${itemLabel(item)}” is gone.`);
  const order = (form: FormDefinition) =>
    form.items.map(({ name }) => name).filter((name) => kept.has(name) && known.has(name));
  if (!same(order(before), order(after))) changes.push('The order is another.');
  for (const [part, words] of Object.entries(PARTS))
    if (!same(before[part as keyof FormDefinition], after[part as keyof FormDefinition]))
      changes.push(`${words} changed.`);
  return changes;
}

/** Items that are the same in all but their name, from the old to the new one. */
function renamedItems(before: FormDefinition, after: FormDefinition): [from: string, to: string][] {
  const has = ({ items }: FormDefinition, name: string) => items.some((item) => item.name === name);
  const nameless = (item: FormItem) => JSON.stringify({ ...item, name: '' });
  const gone = before.items.filter(({ name }) => !has(after, name));
  const renamed: [string, string][] = [];
  for (const item of after.items.filter(({ name }) => !has(before, name))) {
    const at = gone.findIndex((old) => nameless(old) === nameless(item));
    if (at !== -1) renamed.push([gone.splice(at, 1)[0]!.name, item.name]);
  }
  return renamed;
}

const PARTS: Partial<Record<keyof FormDefinition, string>> = {
  title: 'The title is',
  intro: 'The words under the title are',
  button: 'The button is',
  after: 'What comes after sending is',
  language: 'The language is',
  translations: 'The translations are',
  theme: 'The theme is',
  page: 'What the page says of itself is',
  snippets: 'The code of its own is',
  embedOn: 'Where it may be embedded is',
  mayLeadTo: 'Where it may lead to is',
};

function kindOf(item: FormItem): string {
  return isQuestion(item) ? 'The question' : item.type === 'step' ? 'The step' : 'The content';
}
