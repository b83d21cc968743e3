import {
  mapCondition,
  questionsOf,
  questionType,
  type FieldDefinition,
  type FormCondition,
  type FormDefinition,
  type QuestionPart,
  type RecordCondition,
} from '@haycart/core';
import { asGroup, ConditionBuilder, finished } from '../components/condition-builder';
import { useState } from 'react';

/** The same condition builder as everywhere, upon the questions of a form that stand before an item. */
export function QuestionCondition({
  condition,
  before,
  change,
}: {
  condition: FormCondition | undefined;
  /** The form as visitors read it, up to the item. */
  before: Pick<FormDefinition, 'items'>;
  change: (condition: FormCondition | undefined) => void;
}) {
  const [draft, setDraft] = useState<RecordCondition | null>(null);
  const fields = questionsOf(before).map(asField);
  if (!fields.length) return <p className="text-small text-muted">There is no question before it to wait for.</p>;
  const shown = draft ?? asGroup(condition ? onFields(condition) : { all: [] });
  return (
    <ConditionBuilder
      lead="Shown where"
      condition={shown}
      terms={{ fields, teams: [] }}
      change={(next) => {
        setDraft(next);
        const whole = finished(next);
        change(whole && onQuestions(whole));
      }}
    />
  );
}

function asField({ name, label, type, options }: ReturnType<typeof questionsOf>[number]): FieldDefinition {
  return {
    record: 'contact',
    key: name,
    label: label || name,
    type: questionType(type).holds,
    builtIn: false,
    required: false,
    ...(options ? { options: options.map(({ value, label: words }) => ({ key: value, label: words })) } : {}),
  };
}

const onFields = (condition: FormCondition): RecordCondition =>
  mapCondition(condition, ({ question }: QuestionPart) => ({ field: question }));
const onQuestions = (condition: RecordCondition): FormCondition =>
  mapCondition(condition, ({ field }) => ({ question: field }));
