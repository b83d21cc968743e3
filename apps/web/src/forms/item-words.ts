import { isQuestion, questionType, type ContentTypeName, type FieldDefinition, type FormItem } from '@haycart/core';

/** What stands between questions, as the editor names it. */
export const CONTENT_WORDS: Record<ContentTypeName, string> = {
  step: 'Step',
  heading: 'Heading',
  'text-block': 'Text',
  image: 'Picture',
  video: 'Link to a video',
  gallery: 'Pictures',
  logos: 'Row of logos',
  social: 'Social links',
  divider: 'Line',
  html: 'Code of your own',
};

/** The kind of an item in a word or two. */
export function kindWords(item: FormItem): string {
  return isQuestion(item) ? questionType(item.type).label : CONTENT_WORDS[item.type];
}

/** What an item says, with the words of the field that it follows where it has none of its own. */
export function itemWords(item: FormItem, fields: readonly FieldDefinition[]): string {
  if (!isQuestion(item)) return item.text?.split('\n', 1)[0] || item.parts?.[0]?.text || CONTENT_WORDS[item.type];
  if (item.type === 'hidden') return `${item.name} = ${item.from ? `?${item.from}` : item.value || '…'}`;
  const field =
    item.feeds && fields.find(({ record, key }) => record === item.feeds!.record && key === item.feeds!.field);
  return item.label || field?.label || item.name;
}
