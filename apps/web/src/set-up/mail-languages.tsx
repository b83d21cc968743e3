import { FORM_LANGUAGES, type MailTexts } from '@haycart/core';
import { Button } from '../components/button';
import { languageName } from '../components/language-name';
import { SelectField } from '../components/text-field';

/** In which language the texts are shown and changed: the template’s own, or one that a form may have. */
export function MailLanguages({
  translations,
  language,
  choose,
  add,
  remove,
}: {
  translations: Readonly<Record<string, MailTexts>>;
  /** `null` for the template’s own texts. */
  language: string | null;
  choose: (language: string | null) => void;
  add: (language: string) => void;
  remove: (language: string) => void;
}) {
  const known = Object.keys(translations);
  const free = FORM_LANGUAGES.filter((one) => !known.includes(one));
  return (
    <div className="flex flex-wrap items-end gap-2">
      {known.length > 0 && (
        <div role="group" aria-label="Language" className="inline-flex overflow-hidden rounded border border-line">
          {[null, ...known].map((one) => (
            <button
              key={one ?? ''}
              type="button"
              aria-pressed={one === language}
              onClick={() => choose(one)}
              className={`px-3 py-1 ${one === language ? 'bg-ink text-sheet' : 'hover:bg-raised'}`}
            >
              {one === null ? 'for everybody else' : languageName(one)}
            </button>
          ))}
        </div>
      )}
      <SelectField
        label="Add a language"
        hideLabel
        value=""
        onChange={({ target }) => target.value && add(target.value)}
        className="!w-44"
      >
        <option value="">add a language…</option>
        {free.map((one) => (
          <option key={one} value={one}>
            {languageName(one)}
          </option>
        ))}
      </SelectField>
      {language !== null && <Button onClick={() => remove(language)}>Remove {languageName(language)}</Button>}
    </div>
  );
}
