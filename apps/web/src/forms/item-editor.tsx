import {
  fieldOf,
  isQuestion,
  type AnswerChecks,
  type Content,
  type Destination,
  type FormDefinition,
  type FormItem,
  type Problem,
  type Question,
} from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { formFiguresQuery } from '../api/queries';
import { useWords } from '../api/words';
import { count } from '../components/format';
import { Popover } from '../components/popover';
import { ContentEditor } from './content-editor';
import { QuestionCondition } from './condition-of-questions';
import { edit } from './draft';
import { QuestionChecks } from './question-checks';
import { QuestionKey } from './question-key';
import { QuestionOptions } from './question-options';
import { BOX, Row, SelectRow, TextRow, TickRow } from './row';

/** One item of a form, edited in its place in the outline. */
export function ItemEditor({
  item,
  shown,
  form,
  shownForm,
  destination,
  problems,
  intake,
  isPublished,
  renamed,
}: {
  item: FormItem;
  /** The key of the form's intake. */
  intake: string;
  /** The item with what it follows. */
  shown: FormItem;
  form: FormDefinition;
  shownForm: FormDefinition;
  destination: Destination;
  problems: readonly Problem[];
  /** Whether visitors have a version of the form that has the item. */
  isPublished: boolean;
  /** The item has another name, under which it stays open. */
  renamed: (to: string) => void;
}) {
  const before = { items: shownForm.items.slice(0, form.items.indexOf(item)) };
  const change = (part: Partial<Question> | Partial<Content>) =>
    edit({ do: 'change', name: item.name, item: withoutBlanks({ ...item, ...part } as FormItem) });
  return (
    <div className="flex flex-col gap-2 border-l-4 border-straw px-3 py-2.5 pl-8">
      {problems.map(({ text }) => (
        <p key={text} className="text-small text-brick">
          {text}
        </p>
      ))}
      {isQuestion(item) ? (
        <QuestionEditor question={item} shown={shown as Question} destination={destination} change={change}>
          <QuestionKey
            question={item}
            shown={shown as Question}
            form={form}
            isPublished={isPublished}
            rename={(to) => {
              edit({ do: 'rename', name: item.name, to });
              renamed(to);
            }}
          />
        </QuestionEditor>
      ) : (
        <ContentEditor content={item} change={change} />
      )}
      {isQuestion(item) && item.type !== 'hidden' && <StopHere intake={intake} name={item.name} />}
      <Row label="Shown">
        <Popover
          wide
          label="When it is shown"
          trigger={
            <button type="button" className={`${BOX} cursor-pointer text-left`}>
              {item.shownWhen ? 'only where …' : 'always'}
            </button>
          }
        >
          <QuestionCondition condition={item.shownWhen} before={before} change={(shownWhen) => change({ shownWhen })} />
        </Popover>
      </Row>
    </div>
  );
}

/** How many of those who began left at this question, in the last 30 days. */
function StopHere({ intake, name }: { intake: string; name: string }) {
  const figures = useQuery(formFiguresQuery(intake, 30)).data;
  if (!figures?.whole.starts) return null;
  return (
    <Row label="Stop here">
      <span>
        {count(figures.stops[name] ?? 0)} of {count(figures.whole.starts)} who began
      </span>
    </Row>
  );
}

function withoutBlanks(item: FormItem): FormItem {
  return Object.fromEntries(Object.entries(item).filter(([, value]) => value !== undefined)) as unknown as FormItem;
}

function QuestionEditor({
  question,
  shown,
  destination,
  change,
  children,
}: {
  question: Question;
  shown: Question;
  destination: Destination;
  change: (part: Partial<Question>) => void;
  /** What every question has. */
  children: ReactNode;
}) {
  const words = useWords();
  const { feeds, type } = question;
  const field = feeds && fieldOf(destination, feeds.record, feeds.field);
  const checks = question.checks ?? {};
  const check = (part: Partial<AnswerChecks>) => {
    const next = Object.fromEntries(
      Object.entries({ ...checks, ...part }).filter(([, value]) => value !== undefined && value !== false),
    );
    change({ checks: Object.keys(next).length ? next : undefined });
  };
  if (type === 'hidden')
    return (
      <>
        <TextRow label="Value" value={question.value} change={(value) => change({ value })} />
        <TextRow
          label="From ?"
          value={question.from}
          placeholder="name of a parameter"
          change={(from) => change({ from })}
        />
        {children}
      </>
    );
  return (
    <>
      <Row label="Field">
        <span className="truncate">
          {field ? (
            <Link to={`/set-up/fields/${field.record}`} className="text-slate hover:underline">
              {words.One(field.record)}, {field.label}
            </Link>
          ) : (
            <span className="text-muted">none; a route can take the answer “{question.name}”</span>
          )}
        </span>
      </Row>
      <TextRow
        label={type === 'consent' ? 'Exact words' : 'Asks'}
        value={question.label}
        placeholder={shown.label}
        lines={type === 'consent' ? 3 : 1}
        change={(label) => change({ label: label ?? '' })}
      />
      {type === 'consent' ? (
        <TextRow label="Version" value={question.version} change={(version) => change({ version })} />
      ) : (
        <>
          <TextRow label="Help" value={question.help} change={(help) => change({ help })} />
          {HAS_PLACEHOLDER.has(type) && (
            <TextRow label="Example" value={question.placeholder} change={(placeholder) => change({ placeholder })} />
          )}
        </>
      )}
      {(type === 'one-of' || (field && shown.type === 'one-of')) && (
        <SelectRow
          label="Asked as"
          value={question.shownAs ?? 'list'}
          options={[
            ['list', 'a list to open'],
            ['radios', 'one below the other'],
            ['cards', 'cards'],
          ]}
          change={(shownAs) => change({ shownAs })}
        />
      )}
      {(shown.type === 'one-of' || shown.type === 'several-of') && (
        <QuestionOptions question={question} shown={shown} field={field} change={change} />
      )}
      <TickRow
        label="Needed"
        checked={question.required ?? false}
        change={(required) => change({ required: required || undefined })}
      />
      <QuestionChecks question={{ ...question, type: shown.type }} checks={checks} check={check} change={change} />
      {children}
    </>
  );
}

const HAS_PLACEHOLDER: ReadonlySet<string> = new Set([
  'text',
  'long-text',
  'email',
  'phone',
  'web',
  'whole-number',
  'decimal',
  'money',
]);
