import { isQuestion, type FormDefinition, type FormItem } from './definition';

/** Every text of a form that a visitor reads, by its path. */
export function textsOf(form: FormDefinition): Record<string, string> {
  const texts: Record<string, string> = { title: form.title, button: form.button };
  const keep = (path: string, text: string | undefined) => {
    if (text) texts[path] = text;
  };
  keep('intro', form.intro);
  if (form.after.do !== 'redirect') keep('after/title', form.after.title);
  if (form.after.do === 'thank') keep('after/text', form.after.text);
  for (const item of form.items) {
    const path = `items/${item.name}`;
    if (!isQuestion(item)) {
      keep(`${path}/text`, item.type === 'html' ? undefined : item.text);
      continue;
    }
    if (item.type === 'hidden') continue;
    keep(`${path}/label`, item.label);
    keep(`${path}/help`, item.help);
    keep(`${path}/placeholder`, item.placeholder);
    for (const { value, label } of item.options ?? []) keep(`${path}/options/${value}`, label);
  }
  return texts;
}

/** The languages of a form, its own first. */
export function languagesOf({ language, translations = {} }: FormDefinition): string[] {
  return [language, ...Object.keys(translations)];
}

/** The language of a form that fits best what a visitor asks for, such as `nl-BE, en;q=0.8` (RFC 9110, 12.5.4). */
export function bestLanguage(form: FormDefinition, wanted: string): string {
  const languages = languagesOf(form);
  const primary = (tag: string) => tag.split('-')[0]!.toLowerCase();
  const asked = wanted
    .split(',')
    .map((part) => {
      const [tag = '', quality] = part.trim().split(/;\s*q=/);
      return { tag, quality: quality === undefined ? 1 : Number(quality) || 0 };
    })
    .sort((a, b) => b.quality - a.quality);
  for (const { tag } of asked) {
    const found = languages.find((one) => one.toLowerCase() === tag.toLowerCase());
    const close = found ?? languages.find((one) => primary(one) === primary(tag));
    if (close) return close;
  }
  return form.language;
}

/** The form in one of its languages; a text that is not translated stays as it is. */
export function localised(form: FormDefinition, language: string): FormDefinition {
  const texts = form.translations?.[language];
  if (!texts || language === form.language) return form;
  const { after } = form;
  return {
    ...form,
    language,
    title: texts.title ?? form.title,
    button: texts.button ?? form.button,
    ...(form.intro ? { intro: texts.intro ?? form.intro } : {}),
    after:
      after.do === 'redirect'
        ? after
        : after.do === 'thank'
          ? { ...after, title: texts['after/title'] ?? after.title, text: texts['after/text'] ?? after.text }
          : { ...after, title: texts['after/title'] ?? after.title },
    items: form.items.map((item) => localisedItem(item, texts)),
  };
}

function localisedItem(item: FormItem, texts: Record<string, string>): FormItem {
  const path = `items/${item.name}`;
  if (!isQuestion(item)) return item.text ? { ...item, text: texts[`${path}/text`] ?? item.text } : item;
  return {
    ...item,
    label: texts[`${path}/label`] ?? item.label,
    ...(item.help ? { help: texts[`${path}/help`] ?? item.help } : {}),
    ...(item.placeholder ? { placeholder: texts[`${path}/placeholder`] ?? item.placeholder } : {}),
    ...(item.options
      ? {
          options: item.options.map(({ value, label }) => ({
            value,
            label: texts[`${path}/options/${value}`] ?? label,
          })),
        }
      : {}),
  };
}
