import type { ProblemAt } from '@haycart/api';
import type { MailTemplate, MailTexts } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { ApiError, call } from '../api/client';
import { AskOnce } from '../components/ask-once';
import { Button } from '../components/button';
import { CopyKey } from '../components/copy-key';
import { languageName } from '../components/language-name';
import { Mono, Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { TextArea, TextField } from '../components/text-field';
import { MailLanguages } from './mail-languages';
import { MailPreview } from './mail-preview';

const BLANK = {
  name: '',
  subject: 'Thank you for writing to us',
  text: 'Dear {{ contact.first_name }},\n\nwe have your message and answer within two working days.\n',
  html: null as string | null,
  translations: {} as Readonly<Record<string, MailTexts>>,
};

const PARTS = ['/subject', '/text', '/html'];

/** One template: its subject and its texts, beside what they make of an example. */
export function MailTemplateEditor({ template }: { template: MailTemplate | null }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [draft, setDraft] = useState(() => ({ ...BLANK, ...template }));
  const [language, setLanguage] = useState<string | null>(null);
  const { name, translations } = draft;
  const own: MailTexts = { subject: draft.subject, text: draft.text, html: draft.html };
  const shown = language === null ? own : translations[language]!;
  const translate = (language: string, texts: MailTexts | null) =>
    setDraft((before) => {
      const { [language]: _, ...rest } = before.translations;
      return { ...before, translations: texts ? { ...before.translations, [language]: texts } : rest };
    });
  const put = (change: Partial<MailTexts>) =>
    language === null
      ? setDraft((before) => ({ ...before, ...change }))
      : translate(language, { ...translations[language]!, ...change });
  const given = { name, ...own, translations };
  const save = useMutation({
    mutationFn: () =>
      template
        ? call<MailTemplate>('PATCH', `/mail-templates/${template.key}`, given)
        : call<MailTemplate>('POST', '/mail-templates', given),
    onSuccess: async ({ key, name }) => {
      await client.invalidateQueries({ queryKey: ['channels'] });
      toast(`${name} is saved.`);
      if (!template) void navigate(`/set-up/mail/${key}`, { replace: true });
    },
  });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/mail-templates/${template!.key}`),
    onSuccess: async () => {
      await navigate('/set-up/mail', { replace: true });
      await client.invalidateQueries({ queryKey: ['channels'] });
    },
  });
  const [removing, setRemoving] = useState(false);
  const wrong: ProblemAt[] = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const here = language === null ? '' : `/translations/${language}`;
  const errorAt = (part: string) => wrong.find(({ at }) => at === `${here}${part}`)?.message;
  const elsewhere = wrong.find(({ at }) => at !== '/name' && !PARTS.some((part) => at === `${here}${part}`));
  return (
    <div className="grid gap-5 xl:grid-cols-2">
      <Sheet className="p-4">
        <form
          noValidate
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            save.mutate();
          }}
        >
          <header className="flex flex-wrap items-center gap-3">
            <h2 className="text-lg">{template?.name ?? 'New template'}</h2>
            {template && <CopyKey text={template.key} />}
          </header>
          <TextField
            label="Name"
            placeholder="Thank you"
            value={name}
            error={wrong.find(({ at }) => at === '/name')?.message}
            onChange={({ target }) => setDraft((before) => ({ ...before, name: target.value }))}
          />
          <MailLanguages
            translations={translations}
            language={language}
            choose={setLanguage}
            add={(added) => {
              translate(added, shown);
              setLanguage(added);
            }}
            remove={(removed) => {
              setLanguage(null);
              translate(removed, null);
            }}
          />
          <TextField
            label="Subject"
            value={shown.subject}
            error={errorAt('/subject')}
            onChange={({ target }) => put({ subject: target.value })}
          />
          <TextArea
            label="Text"
            rows={9}
            className="font-mono text-[12.5px]"
            value={shown.text}
            error={errorAt('/text')}
            onChange={({ target }) => put({ text: target.value })}
          />
          {shown.html === null ? (
            <Button className="self-start" onClick={() => put({ html: htmlOf(shown.text) })}>
              Add HTML
            </Button>
          ) : (
            <>
              <TextArea
                label="HTML"
                rows={9}
                className="font-mono text-[12.5px]"
                help="For mail programs that show it; others show the text. Values are escaped."
                value={shown.html}
                error={errorAt('/html')}
                onChange={({ target }) => put({ html: target.value })}
              />
              <Button className="self-start" onClick={() => put({ html: null })}>
                Send the text alone
              </Button>
            </>
          )}
          <p className="text-small text-muted">
            Values stand in <Mono>{'{{ … }}'}</Mono>, as Liquid: <Mono>{'{{ contact.first_name }}'}</Mono>,{' '}
            <Mono>{'{{ deal.name }}'}</Mono>, <Mono>{'{{ answers.plan }}'}</Mono>, <Mono>{'{{ route.name }}'}</Mono>.
            Conditions: <Mono>{'{% if answers.plan %} … {% endif %}'}</Mono>.
          </p>
          {save.isError && (!wrong.length || elsewhere) && (
            <p role="alert" className="text-brick">
              {elsewhere ? `${whereOf(elsewhere)}: ${elsewhere.message}` : messageOf(save.error)}
            </p>
          )}
          <div className="flex flex-wrap gap-2">
            <Button type="submit" look="main" disabled={!name.trim() || save.isPending}>
              Save
            </Button>
            {template && (
              <Button look="danger" onClick={() => setRemoving(true)}>
                Remove…
              </Button>
            )}
          </div>
        </form>
      </Sheet>
      <MailPreview template={shown} />
      {removing && (
        <AskOnce
          title={`Remove ${template!.name}?`}
          loses="Routes that still name it write their records and send nothing by it. Mails that wait are sent as they are."
          action="Remove"
          doing={remove}
          close={() => setRemoving(false)}
        />
      )}
    </div>
  );
}

/** In which language something is wrong that does not show. */
function whereOf({ at = '' }: ProblemAt): string {
  const language = /^\/translations\/([^/]+)\//.exec(at)?.[1];
  return language ? languageName(language) : 'For everybody else';
}

/** The paragraphs of a text as HTML. */
function htmlOf(text: string): string {
  return text
    .trim()
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${paragraph.trim().replaceAll('\n', '<br>')}</p>`)
    .join('\n');
}
