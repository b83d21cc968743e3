import { whyNotNamed, type FormDefinition, type Question } from '@haycart/core';
import { useState } from 'react';
import { kindWords } from './item-words';
import { BOX, Row } from './row';

/** The key under which an answer arrives. Another one holds once it can be one and the field is left. */
export function QuestionKey({
  question,
  shown,
  form,
  isPublished,
  rename,
}: {
  question: Question;
  shown: Question;
  form: FormDefinition;
  /** Whether visitors have a version with the key that it has now. */
  isPublished: boolean;
  rename: (to: string) => void;
}) {
  const { name } = question;
  const [typed, setTyped] = useState(name);
  const wrong = whyNotNamed(form, name, typed);
  const take = () => {
    if (wrong) setTyped(name);
    else if (typed !== name) rename(typed);
  };
  return (
    <>
      <Row label="Key">
        <input
          className={`${BOX} font-mono text-[12.5px]`}
          spellCheck={false}
          autoCapitalize="off"
          value={typed}
          aria-invalid={wrong !== null}
          title={kindWords(shown)}
          onChange={({ target }) => setTyped(target.value)}
          onBlur={take}
          onKeyDown={(event) => {
            if (event.key === 'Enter') take();
            if (event.key === 'Escape') setTyped(name);
          }}
        />
      </Row>
      {wrong ? (
        <p role="alert" className="text-small text-brick">
          {wrong}
        </p>
      ) : (
        isPublished &&
        typed !== name && (
          <p role="status" className="text-small text-muted">
            Routes that take “{name}” find nothing there any more, until they take “{typed}” too.
          </p>
        )
      )}
    </>
  );
}
