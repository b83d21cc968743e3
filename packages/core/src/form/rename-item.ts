import { mapCondition } from '../condition/condition';
import { ITEM_NAME, type AfterSending, type FormDefinition, type FormItem } from './definition';

/**
 * The form with an item under another name: conditions that wait for it, its translations and `{name}` in texts follow.
 * The same form where the name is taken, is none, or nothing is called so.
 */
export function renameItem(form: FormDefinition, name: string, to: string): FormDefinition {
  if (name === to || whyNotNamed(form, name, to) !== null || !form.items.some((item) => item.name === name))
    return form;
  const { translations } = form;
  return {
    ...form,
    items: form.items.map((item) => follow(item.name === name ? { ...item, name: to } : item, name, to)),
    after: afterFollows(form.after, name, to),
    ...(translations
      ? {
          translations: Object.fromEntries(
            Object.entries(translations).map(([language, texts]) => [language, textsFollow(texts, name, to)]),
          ),
        }
      : {}),
  };
}

/** Why an item cannot be called so, in a sentence; null where it can. */
export function whyNotNamed({ items }: Pick<FormDefinition, 'items'>, name: string, to: string): string | null {
  if (!ITEM_NAME.test(to)) return 'A key is a small letter and then small letters, digits and _, at most 60 of them.';
  if (to !== name && items.some((item) => item.name === to)) return `Another question has the key ${to}.`;
  return null;
}

function follow(item: FormItem, name: string, to: string): FormItem {
  if (!item.shownWhen) return item;
  return {
    ...item,
    shownWhen: mapCondition(item.shownWhen, (of) => (of.question === name ? { question: to } : of)),
  };
}

function afterFollows(after: AfterSending, name: string, to: string): AfterSending {
  if (after.do === 'redirect') return after;
  const title = after.title.replaceAll(`{${name}}`, `{${to}}`);
  return after.do === 'thank'
    ? { ...after, title, text: after.text.replaceAll(`{${name}}`, `{${to}}`) }
    : { ...after, title };
}

function textsFollow(texts: Record<string, string>, name: string, to: string): Record<string, string> {
  const own = `items/${name}/`;
  return Object.fromEntries(
    Object.entries(texts).map(([path, text]) => [
      path.startsWith(own) ? `items/${to}/${path.slice(own.length)}` : path,
      path.startsWith('after/') ? text.replaceAll(`{${name}}`, `{${to}}`) : text,
    ]),
  );
}
