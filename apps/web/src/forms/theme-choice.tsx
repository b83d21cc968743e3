import { checkTheme, PLAIN_THEME, THEME_FONTS, type FormDefinition, type Theme } from '@haycart/core';
import type { ThemeShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { themesQuery } from '../api/queries';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextField } from '../components/text-field';
import { edit } from './draft';
import { BOX, NumberRow, Row, SelectRow } from './row';

/** Which theme a form wears, and the way to change it or make another. */
export function ThemeChoice({ form }: { form: FormDefinition }) {
  const themes = useQuery(themesQuery).data ?? [];
  const [editing, setEditing] = useState<ThemeShape | 'new' | null>(null);
  const worn = themes.find(({ key }) => key === form.theme);
  const wear = (theme: string | undefined) => edit({ do: 'set', part: { theme } });
  return (
    <>
      <Row label="Theme">
        <select
          className={`${BOX} cursor-pointer`}
          value={form.theme ?? ''}
          onChange={({ target }) => wear(target.value || undefined)}
        >
          <option value="">Plain</option>
          {themes.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </Row>
      <span className="flex gap-4 pl-24 text-small">
        {worn && (
          <button type="button" className="text-slate hover:underline" onClick={() => setEditing(worn)}>
            Change it
          </button>
        )}
        <button type="button" className="text-slate hover:underline" onClick={() => setEditing('new')}>
          New theme
        </button>
      </span>
      {editing && (
        <ThemeDialog
          theme={editing === 'new' ? null : editing}
          begin={worn?.theme ?? PLAIN_THEME}
          made={wear}
          close={() => setEditing(null)}
        />
      )}
    </>
  );
}

const COLOURS: [key: 'background' | 'sheet' | 'ink' | 'accent' | 'accentInk', words: string][] = [
  ['background', 'Background'],
  ['sheet', 'Where one types'],
  ['ink', 'Text'],
  ['accent', 'Button'],
  ['accentInk', 'Words on it'],
];
const FONT_WORDS: Record<Theme['font'], string> = {
  figtree: 'Figtree',
  bricolage: 'Bricolage Grotesque',
  system: 'that of the machine',
  serif: 'with serifs',
  mono: 'typewriter',
};

function ThemeDialog({
  theme,
  begin,
  made,
  close,
}: {
  theme: ThemeShape | null;
  begin: Theme;
  made: (key: string) => void;
  close: () => void;
}) {
  const client = useQueryClient();
  const [look, setLook] = useState(theme?.theme ?? begin);
  const [name, setName] = useState('');
  const save = useMutation({
    mutationFn: () =>
      theme
        ? call<undefined>('PUT', `/themes/${theme.key}`, { theme: look })
        : call<ThemeShape>('POST', '/themes', { name: name.trim(), theme: look }),
    onSuccess: async (answer) => {
      await client.invalidateQueries({ queryKey: ['themes'] });
      await client.invalidateQueries({ queryKey: ['form-preview'] });
      if (answer) made(answer.key);
      close();
    },
  });
  const put = (part: Partial<Theme>) => setLook({ ...look, ...part });
  const problems = checkTheme(look);
  const others = theme?.forms.length ?? 0;
  return (
    <Dialog open wide close={close} title={theme ? `Theme ${theme.name}` : 'New theme'}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        {!theme && <TextField label="Name" autoFocus value={name} onChange={({ target }) => setName(target.value)} />}
        <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          <div className="flex flex-col gap-2">
            {COLOURS.map(([key, words]) => (
              <Row key={key} label={words}>
                <span className="flex gap-2">
                  <input
                    type="color"
                    aria-label={`${words}, colour`}
                    className="h-8 w-10 cursor-pointer rounded border border-faint bg-raised p-0.5"
                    value={/^#[0-9a-f]{6}$/i.test(look[key]) ? look[key] : '#000000'}
                    onChange={({ target }) => put({ [key]: target.value })}
                  />
                  <input
                    aria-label={words}
                    className={`${BOX} font-mono text-[12.5px]`}
                    value={look[key]}
                    onChange={({ target }) => put({ [key]: target.value })}
                  />
                </span>
              </Row>
            ))}
            {problems.map(({ text }) => (
              <p key={text} role="status" className="text-small text-brick">
                {text}
              </p>
            ))}
            {!problems.length && <p className="text-small text-muted">Everything on it can be read well.</p>}
          </div>
          <div className="flex flex-col gap-2">
            <SelectRow
              label="Font"
              value={look.font}
              options={THEME_FONTS.map((font) => [font, FONT_WORDS[font]])}
              change={(font) => put({ font })}
            />
            <NumberRow label="Corners" value={look.corner} change={(corner) => put({ corner: corner ?? 0 })} />
            <NumberRow label="Width" value={look.width} change={(width) => put({ width: width ?? 600 })} />
            <SelectRow
              label="Spacing"
              value={look.spacing}
              options={[
                ['tight', 'tight'],
                ['usual', 'usual'],
                ['airy', 'airy'],
              ]}
              change={(spacing) => put({ spacing })}
            />
            <SelectRow
              label="Title"
              value={look.align}
              options={[
                ['left', 'at the left'],
                ['centre', 'in the middle'],
              ]}
              change={(align) => put({ align })}
            />
            <SelectRow
              label="Button"
              value={look.button.size}
              options={[
                ['small', 'small'],
                ['usual', 'usual'],
                ['large', 'large'],
              ]}
              change={(size) => put({ button: { ...look.button, size } })}
            />
            <SelectRow
              label="position"
              value={look.button.at}
              options={[
                ['left', 'at the left'],
                ['centre', 'in the middle'],
                ['right', 'at the right'],
                ['full', 'over the whole width'],
              ]}
              change={(at) => put({ button: { ...look.button, at } })}
            />
          </div>
        </div>
        <div
          aria-hidden
          className="rounded border border-line p-5"
          style={{
            background: look.background,
            color: look.ink,
            textAlign: look.align === 'centre' ? 'center' : 'left',
          }}
        >
          <p className="mb-2 text-lg font-semibold">What will you grow?</p>
          <p
            className="mb-3 border px-3 py-2 text-left"
            style={{ background: look.sheet, borderRadius: look.corner, borderColor: look.ink }}
          >
            Moss, mostly
          </p>
          <span
            className="inline-block px-5 py-2 font-semibold"
            style={{ background: look.accent, color: look.accentInk, borderRadius: look.corner }}
          >
            Send
          </span>
        </div>
        <DialogActions
          error={save.error}
          close={close}
          action={theme ? 'Change the theme' : 'Make the theme'}
          disabled={save.isPending || (!theme && !name.trim())}
          note={
            others > 0 ? `${others} ${others === 1 ? 'form wears' : 'forms wear'} it, and changes at once.` : undefined
          }
        />
      </form>
    </Dialog>
  );
}
