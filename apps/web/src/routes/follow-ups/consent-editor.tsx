import { CONFIRM_STARTER, type ConsentChannel, type Value } from '@haycart/core';
import { ChannelField } from '../../components/consent-channel';
import { SelectField } from '../../components/text-field';
import { TemplateChoice } from './template-choice';
import { DaysToConfirm } from './days-to-confirm';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';
import { without } from './without';

/** What a contact agrees to, in which words, and whether they confirm it by mail. */
export function ConsentEditor({ followUp, put, definition: { writes }, destination, incoming, sample }: EditorProps) {
  const channel = followUp.channel as ConsentChannel;
  const confirm = followUp.confirm as string | undefined;
  const within = followUp.within as string | undefined;
  const contacts = writes.filter(({ record }) => record === 'contact');
  const atOnce = without(without(followUp, 'confirm', undefined), 'within', undefined);
  const change = (next: object) => {
    const changed = { ...followUp, ...next };
    put(changed.channel === 'email' && changed.state === 'given' ? changed : { ...atOnce, ...next });
  };
  return (
    <>
      <RecordRow name="Of" value={followUp.on} change={(on) => put({ ...followUp, on })} writes={contacts} />
      <span className="text-muted">To</span>
      <div className="flex flex-wrap items-center gap-2">
        <ChannelField label="To what" hideLabel channel={channel} choose={(to) => change({ channel: to })} />
        <SelectField
          label="It is"
          hideLabel
          value={String(followUp.state)}
          onChange={({ target }) => change({ state: target.value })}
        >
          <option value="given">given</option>
          <option value="withdrawn">withdrawn</option>
        </SelectField>
      </div>
      <ValueRow
        name="Words"
        label="the words"
        value={followUp.words as Value}
        change={(words = { parts: [] }) => put({ ...followUp, words })}
        writes={writes}
        incoming={incoming}
        sample={sample}
      />
      {channel === 'email' && followUp.state === 'given' && (
        <>
          <span className="text-muted">Confirmed by</span>
          <div className="flex flex-wrap items-center gap-2">
            <div className="w-60 max-sm:w-full">
              <TemplateChoice
                starter={CONFIRM_STARTER}
                starts="a new one with the link…"
                label="Confirmed by which mail"
                value={confirm}
                none="no mail: it counts at once"
                templates={destination.templates}
                choose={(key) => put(key ? { ...followUp, confirm: key } : atOnce)}
              />
            </div>
            {confirm !== undefined && (
              <>
                <span className="text-muted">within</span>
                <DaysToConfirm
                  label="Days to confirm"
                  within={within}
                  change={(next) => put({ ...followUp, within: next })}
                />
                <span className="text-muted">days</span>
              </>
            )}
          </div>
        </>
      )}
    </>
  );
}
