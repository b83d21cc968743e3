import type { FormShape } from '@haycart/api';
import { followFields, languagesOf } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { useDestination } from '../api/destination';
import { formQuery } from '../api/queries';
import { Button } from '../components/button';
import { Failed, Loading, messageOf } from '../components/status';
import { UndoButtons } from '../components/undo-buttons';
import type { Chosen } from './chosen';
import { useFormDraft } from './draft';
import { FormMenu } from './form-menu';
import { languageName } from '../components/language-name';
import { Outline } from './outline';
import { Preview, WIDTHS, type Width } from './preview';
import { PublishForm } from './publish-form';
import { ShareForm } from './share-form';

/** The page on which a form is built: its outline at the left, the real page at the right. */
export function FormPage() {
  const { id = '' } = useParams();
  const form = useQuery(formQuery(id));
  const open = useFormDraft(({ open }) => open);
  const ready = useFormDraft((draft) => draft.id === id);
  useEffect(() => {
    if (form.data && useFormDraft.getState().id !== id) open(id, form.data.draft, form.data);
  }, [form.data, open, id]);
  useEffect(
    () => () => {
      void useFormDraft.getState().save();
      useFormDraft.setState({ id: null });
    },
    [id],
  );
  if (form.isError) return <Failed error={form.error} retry={() => void form.refetch()} />;
  if (!ready) return <Loading />;
  return <Editor />;
}

function Editor() {
  const { value, saved, saving, error, past, future, undo, redo } = useFormDraft();
  const destination = useDestination();
  const [chosen, setChosen] = useState<Chosen>(null);
  const [width, setWidth] = useState<Width>('Desktop');
  const [language, setLanguage] = useState<string | null>(null);
  const [dialog, setDialog] = useState<'publish' | 'share' | null>(null);
  if (!value || !saved || !destination) return <Loading />;
  const shown = followFields(value, destination.fields);
  const languages = languagesOf(value);
  return (
    <div className="flex h-full max-lg:block max-lg:overflow-y-auto">
      <div className="w-[332px] flex-none overflow-y-auto border-r border-line bg-sheet max-lg:w-full max-lg:border-r-0">
        <header className="px-4 pt-4 pb-2">
          <h1 className="text-xl leading-6">{saved.intake.name}</h1>
          <p role="status" className={`mt-0.5 ${saving === 'failed' ? 'text-brick' : 'text-muted'}`}>
            {stateWords(saved, saving, error)}
          </p>
        </header>
        <Outline
          intake={saved.intake.key}
          published={saved.intake.form}
          form={value}
          shown={shown}
          destination={destination}
          problems={saved.problems}
          chosen={chosen}
          choose={setChosen}
        />
      </div>
      <div className="flex min-w-0 flex-1 flex-col overflow-y-auto p-5 max-lg:overflow-visible">
        <div className="mb-3 flex flex-wrap items-center gap-2">
          <Choice label="Width" value={width} options={Object.keys(WIDTHS) as Width[]} choose={setWidth} />
          {languages.length > 1 && (
            <Choice
              label="Language of the preview"
              value={language ?? value.language}
              options={languages}
              choose={setLanguage}
              words={languageName}
            />
          )}
          <span className="ml-auto flex flex-wrap items-center gap-2">
            <UndoButtons history={{ past, future, undo, redo }} />
            <FormMenu saved={saved} />
            <Button disabled={saved.intake.version === 0} onClick={() => setDialog('share')}>
              Link and embed
            </Button>
            <Button look="main" onClick={() => setDialog('publish')}>
              Publish…
            </Button>
          </span>
        </div>
        <Preview
          form={value}
          language={language ?? value.language}
          width={width}
          chosen={chosen}
          choose={(item) => setChosen({ item })}
        />
      </div>
      {dialog === 'publish' && (
        <PublishForm form={value} saved={saved} destination={destination} close={() => setDialog(null)} />
      )}
      {dialog === 'share' && <ShareForm intake={saved.intake} close={() => setDialog(null)} />}
    </div>
  );
}

function stateWords({ intake, problems, changes }: FormShape, saving: string, error: unknown): string {
  if (saving === 'failed') return `Not saved: ${messageOf(error)}`;
  const live = intake.state === 'draft' ? 'draft, never published' : `${intake.state}, version ${intake.version}`;
  const errors = problems.filter(({ severity }) => severity === 'error').length;
  const draft =
    saving === 'saving' ? 'Saving …' : errors ? `${errors} in the way` : 'Draft checked: nothing in the way';
  return `${live}${changes.length ? ', the draft differs' : ''}. ${draft}.`;
}

function Choice<Option extends string>({
  label,
  value,
  options,
  choose,
  words = (option) => option,
}: {
  label: string;
  value: Option;
  options: readonly Option[];
  choose: (option: Option) => void;
  words?: (option: Option) => string;
}) {
  return (
    <div role="group" aria-label={label} className="inline-flex overflow-hidden rounded border border-line bg-sheet">
      {options.map((option) => (
        <button
          key={option}
          type="button"
          aria-pressed={value === option}
          onClick={() => choose(option)}
          className={`px-3 py-1 ${value === option ? 'bg-ink text-sheet' : 'hover:bg-raised'}`}
        >
          {words(option)}
        </button>
      ))}
    </div>
  );
}
