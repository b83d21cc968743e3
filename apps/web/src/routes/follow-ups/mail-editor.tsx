import { THANKS_STARTER, UNSUBSCRIBE_LINK, type MailAttach, type Value } from '@haycart/core';
import { Link } from 'react-router';
import { Mono } from '../../components/sheet';
import { SelectField } from '../../components/text-field';
import { AttachChoice } from './attach-choice';
import type { EditorProps } from './editor';
import { ValueRow } from './rows';
import { TemplateChoice } from './template-choice';
import { without } from './without';

/** To whom a mail goes, and by which template. */
export function MailEditor({
  followUp,
  put,
  definition: { writes, followUps = [] },
  destination,
  incoming,
  sample,
}: EditorProps) {
  const before = followUps.slice(0, followUps.indexOf(followUp));
  const to = followUp.to as 'visitor' | Value;
  const templates = destination.templates ?? [];
  const teams = Object.entries(destination.teams ?? {});
  return (
    <>
      <span className="text-muted">To</span>
      <SelectField
        label="To whom"
        hideLabel
        value={to === 'visitor' ? 'visitor' : 'other'}
        onChange={({ target }) => put({ ...followUp, to: target.value === 'visitor' ? 'visitor' : { parts: [] } })}
      >
        <option value="visitor">the visitor</option>
        <option value="other">another address</option>
      </SelectField>
      {to !== 'visitor' && (
        <ValueRow
          name="Address"
          label="the address"
          value={to}
          change={(next = { parts: [] }) => put({ ...followUp, to: next })}
          writes={writes}
          incoming={incoming}
          sample={sample}
        />
      )}
      {teams.length > 0 && (
        <>
          <span className="text-muted">From</span>
          <SelectField
            label="From whom"
            hideLabel
            value={String(followUp.from ?? '')}
            onChange={({ target }) => put(without(followUp, 'from', target.value || undefined))}
          >
            <option value="">the firm</option>
            {teams.map(([key, { name }]) => (
              <option key={key} value={key}>
                the team {name}
              </option>
            ))}
          </SelectField>
        </>
      )}
      <span className="text-muted">Template</span>
      <TemplateChoice
        label="By which template"
        value={String(followUp.template)}
        templates={templates}
        starter={THANKS_STARTER}
        starts="a new one that says thank you…"
        choose={(template) => put({ ...followUp, template })}
      />
      {to === 'visitor' && writes.some(({ record }) => record === 'contact') && (
        <>
          <span className="text-muted">Goes to</span>
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={followUp.marketing === true}
              onChange={({ target }) => put(without(followUp, 'marketing', target.checked || undefined))}
            />
            <span className="min-w-0">
              only those who agreed to e-mail: it is marketing, with{' '}
              <Mono className="whitespace-nowrap">{`{{ ${UNSUBSCRIBE_LINK} }}`}</Mono> in its template
            </span>
          </label>
        </>
      )}
      <AttachChoice
        attach={followUp.attach as MailAttach | undefined}
        change={(attach) => put(without(followUp, 'attach', attach))}
        files={destination.files}
        makesDocument={before.some((one) => one.do === 'document')}
      />
      <span aria-hidden className="max-sm:hidden" />
      <p className="text-small text-muted">
        Templates, files, and in whose name teams write are under{' '}
        <Link to="/set-up/mail" className="text-slate underline">
          Set up, Mail
        </Link>
        .
      </p>
    </>
  );
}
