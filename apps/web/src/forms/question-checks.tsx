import type { AnswerChecks, Question } from '@haycart/core';
import { BOX, NumberRow, Row, TextRow, TickRow } from './row';

/** What an answer must meet, by the type of its question. */
export function QuestionChecks({
  question: { type, country, asksCountry, currency },
  checks,
  check,
  change,
}: {
  question: Question;
  checks: AnswerChecks;
  check: (part: Partial<AnswerChecks>) => void;
  change: (part: Partial<Question>) => void;
}) {
  const bound = (value: number | string | undefined) => (value === undefined ? undefined : Number(value));
  switch (type) {
    case 'text':
    case 'long-text':
      return (
        <>
          <NumberRow
            label="At most"
            placeholder="characters"
            value={checks.longest}
            change={(longest) => check({ longest })}
          />
          <TextRow
            label="Shape"
            mono
            placeholder="AA-9999: A a letter, 9 a digit"
            value={checks.pattern}
            change={(pattern) => check({ pattern })}
          />
        </>
      );
    case 'email':
      return (
        <>
          <TickRow
            label="Only addresses at work"
            checked={checks.workEmail ?? false}
            change={(workEmail) => check({ workEmail })}
          />
          <TickRow
            label="No throw-away addresses"
            checked={checks.noThrowAway ?? false}
            change={(noThrowAway) => check({ noThrowAway })}
          />
        </>
      );
    case 'phone':
      return (
        <>
          <TextRow
            label="Country"
            placeholder="GB"
            value={country}
            change={(next) => change({ country: next?.toUpperCase().slice(0, 2) })}
          />
          <TickRow
            label="Ask for the country"
            checked={asksCountry ?? false}
            change={(wanted) => change({ asksCountry: wanted || undefined })}
          />
        </>
      );
    case 'whole-number':
    case 'decimal':
    case 'money':
      return (
        <>
          {type === 'money' && (
            <TextRow
              label="Currency"
              value={currency}
              change={(next) => change({ currency: next?.toUpperCase().slice(0, 3) })}
            />
          )}
          <NumberRow label="At least" value={bound(checks.least)} change={(least) => check({ least })} />
          <NumberRow label="At most" value={bound(checks.most)} change={(most) => check({ most })} />
        </>
      );
    case 'date':
      return (
        <>
          {(['least', 'most'] as const).map((side) => (
            <Row key={side} label={side === 'least' ? 'From' : 'Until'}>
              <input
                type="date"
                className={BOX}
                value={String(checks[side] ?? '')}
                onChange={({ target }) => check({ [side]: target.value || undefined })}
              />
            </Row>
          ))}
        </>
      );
    case 'file':
      return (
        <>
          <TextRow
            label="Endings"
            placeholder="pdf, jpg, png"
            value={checks.fileTypes?.join(', ')}
            change={(text) => {
              const endings = text
                ?.toLowerCase()
                .split(/[\s,.]+/)
                .filter(Boolean);
              check({ fileTypes: endings?.length ? endings : undefined });
            }}
          />
          <NumberRow
            label="At most"
            placeholder="megabytes"
            value={checks.largest === undefined ? undefined : checks.largest / 1_000_000}
            change={(size) => check({ largest: size && Math.min(Math.round(size * 1_000_000), 26_214_400) })}
          />
        </>
      );
    case 'web':
    case 'yes-no':
    case 'one-of':
    case 'several-of':
    case 'address':
    case 'consent':
    case 'hidden':
      return null;
  }
}
