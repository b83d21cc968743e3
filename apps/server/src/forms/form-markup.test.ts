import { describe, expect, test } from '@jest/globals';
import { PLAIN_THEME, QUESTION_TYPES, type FormDefinition, type Question } from '@haycart/core';
import { HtmlValidate } from 'html-validate';
import { formPage, messagePage, type ShownForm } from './form-page';

/** Independent of us: what the HTML standard allows, elements, attributes and their values. */
const validator = new HtmlValidate({ root: true, extends: ['html-validate:standard'] });

const OPTIONS = [
  { value: 'glass', label: 'Glass & film' },
  { value: 'cloth', label: 'Shade “cloth”' },
];
const questions = (required: boolean) =>
  QUESTION_TYPES.map((type): Question => ({
    name: `q_${type.replaceAll('-', '_')}`,
    type,
    label: `Ask for <${type}>`,
    help: 'As you know it',
    required,
    ...(/one|several|choice|select/.test(type) ? { options: OPTIONS } : {}),
  }));
const definition = (items: FormDefinition['items']): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'Ask & answer',
  language: 'en',
  button: 'Send',
  after: { do: 'thank', title: 'Thanks', text: 'We have it.' },
  items,
});
const looks = (form: FormDefinition): ShownForm => ({
  form,
  theme: PLAIN_THEME,
  others: [],
  nonce: 'n',
  style: 'main{margin:0}',
  embedded: false,
});
const page = (form: FormDefinition, answers: Record<string, string>, refused: boolean) =>
  formPage({
    ...looks(form),
    action: '/in/key',
    once: 'once',
    visit: '{}',
    answers,
    ...(refused
      ? {
          refused: form.items.flatMap((item) =>
            'name' in item ? [{ name: item.name, code: 'required' as const, message: 'Needed.' }] : [],
          ),
        }
      : {}),
  });

async function mistakes(html: string): Promise<string[]> {
  const { results } = await validator.validateString(html);
  return results.flatMap(({ messages }) =>
    messages.map(({ ruleId, message, line, column }) => `${ruleId}: ${message} (${line}:${column})`),
  );
}

describe('the markup of a form is what the HTML standard allows', () => {
  test.each([
    ['as it comes', false, {}, false],
    ['with everything needed', true, {}, false],
    ['with answers refused', true, Object.fromEntries(questions(true).map(({ name }) => [name, 'a\n<b>"c"'])), true],
  ] as const)('%s', async (_, required, answers, refused) => {
    expect(await mistakes(page(definition(questions(required)), answers, refused))).toEqual([]);
  });

  test('each question by itself', async () => {
    for (const question of questions(true))
      expect([question.type, await mistakes(page(definition([question]), {}, false))]).toEqual([question.type, []]);
  });

  test('in several languages, and on the page after it', async () => {
    const others = [{ language: 'de', address: 'https://forms.quillfern.example/f/ask?lang=de&x=1' }];
    const several = { ...looks(definition([])), others };
    const link = { address: 'https://quillfern.example/?a=1&b=2', text: 'Back <home>' };
    expect(await mistakes(messagePage(several, 'Thanks', 'We have <it>.', { sent: true, link }))).toEqual([]);
  });

  test('what is not allowed would be seen', async () => {
    expect(
      await mistakes(
        '<!DOCTYPE html><html lang="en"><head><title>x</title></head><body><input type="text" autocomplete="street-address"></body></html>',
      ),
    ).not.toEqual([]);
  });
});
