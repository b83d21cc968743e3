import { CONFIRM_STARTER, type ConfirmationHold, type Destination } from '@haycart/core';
import { TemplateChoice } from './template-choice';
import { DaysToConfirm } from './days-to-confirm';

/** By which mail the visitor confirms, and for how long they can. */
export function ConfirmationSettings({
  hold,
  name,
  destination: { templates },
  put,
}: {
  hold: ConfirmationHold;
  name: string;
  destination: Destination;
  put: (next: ConfirmationHold) => void;
}) {
  return (
    <>
      <span className="text-muted">by the visitor, with the mail</span>
      <div className="w-52 max-sm:w-full">
        <TemplateChoice
          starter={CONFIRM_STARTER}
          starts="a new one with the link…"
          label={`The mail of the ${name}`}
          value={hold.template}
          templates={templates}
          choose={(template) => put({ ...hold, template })}
        />
      </div>
      <span className="text-muted">within</span>
      <DaysToConfirm
        label={`Days for the ${name}`}
        within={hold.within}
        change={(within) => put({ ...hold, within })}
      />
      <span className="text-muted">days</span>
    </>
  );
}
