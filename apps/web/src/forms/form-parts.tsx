import {
  FORM_LANGUAGES,
  languagesOf,
  siteToAllow,
  textsOf,
  type AfterSending,
  type FormDefinition,
} from '@haycart/core';
import { Button } from '../components/button';
import { edit } from './draft';
import type { Chosen, FormPart } from './chosen';
import { languageName } from '../components/language-name';
import { MailAfter } from './mail-after';
import { BOX, Row, SelectRow, TextRow } from './row';
import { PictureRow } from './picture-row';
import { ThemeChoice } from './theme-choice';

const TITLES: Record<FormPart, string> = {
  head: 'Title and button',
  after: 'After sending',
  page: 'Looks and page',
  languages: 'Languages',
};

/** The parts of a form beside its items, each a line that opens in its place. */
export function FormParts({
  form,
  shown,
  part,
  chosen,
  choose,
}: {
  form: FormDefinition;
  /** The form with what it follows. */
  shown: FormDefinition;
  part: FormPart;
  chosen: Chosen;
  choose: (chosen: Chosen) => void;
}) {
  const open = chosen !== null && 'part' in chosen && chosen.part === part;
  return (
    <section className={open ? 'bg-straw-soft/40' : ''}>
      <button
        type="button"
        aria-expanded={open}
        onClick={() => choose(open ? null : { part })}
        className={`flex h-8 w-full items-center gap-2 border-l-4 px-3 text-left ${open ? 'border-straw bg-straw-soft font-semibold' : 'border-transparent hover:bg-raised'}`}
      >
        <span className="flex-none font-semibold text-muted">{TITLES[part]}</span>
        <span className="min-w-0 flex-1 truncate text-right font-normal text-muted">{summary(form, part)}</span>
      </button>
      {open && (
        <div className="flex flex-col gap-2 border-l-4 border-straw px-3 py-2.5 pl-8">
          {part === 'head' && <Head form={form} />}
          {part === 'after' && (
            <>
              <After form={form} />
              <MailAfter />
            </>
          )}
          {part === 'page' && <Page form={form} />}
          {part === 'languages' && <Languages form={form} shown={shown} />}
        </div>
      )}
    </section>
  );
}

function summary(form: FormDefinition, part: FormPart): string {
  switch (part) {
    case 'head':
      return form.title;
    case 'after':
      return { thank: 'thanks', redirect: 'leads on', 'show-again': 'shown again' }[form.after.do];
    case 'page':
      return form.theme ?? 'plain';
    case 'languages':
      return languagesOf(form).map(languageName).join(', ');
  }
}

const set = (part: Partial<FormDefinition>) => edit({ do: 'set', part });

function Head({ form }: { form: FormDefinition }) {
  return (
    <>
      <TextRow label="Title" value={form.title} change={(title) => set({ title: title ?? '' })} />
      <TextRow label="Words" lines={3} value={form.intro} change={(intro) => set({ intro })} />
      <TextRow label="Button" value={form.button} change={(button) => set({ button: button ?? '' })} />
    </>
  );
}

function After({ form }: { form: FormDefinition }) {
  const { after } = form;
  const site = siteToAllow(form);
  const put = (next: AfterSending) => set({ after: next });
  const choose = (what: AfterSending['do']) => {
    const title = after.do === 'redirect' ? 'Thank you' : after.title;
    if (what === 'thank') put({ do: what, title, text: '' });
    else if (what === 'show-again') put({ do: what, title });
    else put({ do: what, to: 'https://' });
  };
  return (
    <>
      <SelectRow
        label="Then"
        value={after.do}
        options={[
          ['thank', 'say thank you'],
          ['redirect', 'lead on to a page'],
          ['show-again', 'show the form again'],
        ]}
        change={choose}
      />
      {after.do === 'redirect' ? (
        <>
          <TextRow label="Page" value={after.to} change={(to) => put({ do: 'redirect', to: to ?? '' })} />
          {site && (
            <p className="flex flex-wrap items-center gap-2 pl-24 text-small text-muted">
              <span className="min-w-0 [overflow-wrap:anywhere]">{site} is not among the allowed sites.</span>
              <Button onClick={() => set({ mayLeadTo: [...(form.mayLeadTo ?? []), site] })}>Allow it</Button>
            </p>
          )}
          <TextRow
            label="Allowed sites"
            lines={2}
            placeholder="https://www.example.com"
            value={form.mayLeadTo?.join('\n')}
            change={(text) => set({ mayLeadTo: lines(text) })}
          />
        </>
      ) : (
        <>
          <TextRow label="Title" value={after.title} change={(title) => put({ ...after, title: title ?? '' })} />
          {after.do === 'thank' && (
            <TextRow
              label="Words"
              lines={3}
              value={after.text}
              change={(text) => put({ ...after, text: text ?? '' })}
            />
          )}
          <p className="text-small text-muted">
            {'{first_name}'} in a text is the answer to the question with that key.
          </p>
        </>
      )}
    </>
  );
}

function lines(text: string | undefined): string[] | undefined {
  const all = text?.split(/\s+/).filter(Boolean);
  return all?.length ? all : undefined;
}

function Page({ form }: { form: FormDefinition }) {
  const { page = {}, snippets = {} } = form;
  const put = (part: Partial<NonNullable<FormDefinition['page']>>) => {
    const next = withoutBlanks({ ...page, ...part });
    set({ page: next });
  };
  const code = (part: Partial<NonNullable<FormDefinition['snippets']>>) =>
    set({ snippets: withoutBlanks({ ...snippets, ...part }) });
  return (
    <>
      <ThemeChoice form={form} />
      <TextRow
        label="Described"
        lines={2}
        placeholder="for search engines and shared links"
        value={page.description}
        change={(description) => put({ description })}
      />
      <TextRow
        label="Canonical"
        placeholder="https://"
        value={page.canonical}
        change={(canonical) => put({ canonical })}
      />
      <TextRow label="Picture" placeholder="https://" value={page.image} change={(image) => put({ image })} />
      <PictureRow label="Icon" value={page.icon} change={(icon) => put({ icon })} />
      <TextRow
        label="Embed on"
        lines={2}
        placeholder="any site, or origins such as https://www.example.com"
        value={form.embedOn?.join('\n')}
        change={(text) => set({ embedOn: lines(text) })}
      />
      <TextRow label="Head code" lines={3} mono value={snippets.head} change={(head) => code({ head })} />
      <TextRow label="Body code" lines={3} mono value={snippets.body} change={(body) => code({ body })} />
    </>
  );
}

function withoutBlanks<Part extends object>(part: Part): Part | undefined {
  const filled = Object.entries(part).filter(([, value]) => value !== undefined);
  return filled.length ? (Object.fromEntries(filled) as Part) : undefined;
}

function Languages({ form, shown }: { form: FormDefinition; shown: FormDefinition }) {
  const { translations = {} } = form;
  const texts = Object.entries(textsOf(shown));
  const put = (language: string, words: Record<string, string> | null) => {
    const { [language]: _, ...rest } = translations;
    const next = words ? { ...translations, [language]: words } : rest;
    set({ translations: Object.keys(next).length ? next : undefined });
  };
  const others = FORM_LANGUAGES.filter((one) => !languagesOf(form).some((known) => known.split('-')[0] === one));
  return (
    <>
      <TextRow
        label="Written in"
        value={form.language}
        placeholder="en-GB"
        change={(language) => set({ language: language ?? '' })}
      />
      {Object.entries(translations).map(([language, words]) => (
        <fieldset key={language} className="flex flex-col gap-1.5 border-t border-line pt-2">
          <legend className="flex w-full items-center justify-between font-semibold">
            {languageName(language)}
            <button
              type="button"
              className="text-small font-normal text-brick hover:underline"
              onClick={() => put(language, null)}
            >
              remove
            </button>
          </legend>
          <p className="text-small text-muted">
            {texts.filter(([path]) => words[path]).length} of {texts.length} texts
          </p>
          {texts.map(([path, text]) => (
            <span key={path} className="flex flex-col">
              <span className="truncate text-small text-muted">{text}</span>
              <input
                aria-label={`${text} in ${languageName(language)}`}
                className={BOX}
                value={words[path] ?? ''}
                onChange={({ target }) => {
                  const { [path]: _, ...rest } = words;
                  put(language, target.value ? { ...words, [path]: target.value } : rest);
                }}
              />
            </span>
          ))}
        </fieldset>
      ))}
      {others.length > 0 && (
        <Row label="Add">
          <span className="flex flex-wrap gap-1.5">
            {others.map((language) => (
              <Button key={language} onClick={() => put(language, {})}>
                {languageName(language)}
              </Button>
            ))}
          </span>
        </Row>
      )}
    </>
  );
}
