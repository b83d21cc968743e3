import type { ApprovalHold, Destination } from '@haycart/core';
import { OwnerChoice } from '../../components/owner-choice';
import { useTables } from '../draft';
import { SelectField } from '../../components/text-field';
import { DaysToConfirm } from './days-to-confirm';

const USUAL = 'P2D';

/** Who says yes, whether they are written a mail, and what follows when nobody answers, or somebody says no. */
export function ApprovalSettings({
  hold,
  name,
  destination,
  put,
}: {
  hold: ApprovalHold;
  name: string;
  destination: Destination;
  put: (next: ApprovalHold) => void;
}) {
  const tables = useTables();
  const { byMail: _, remindAfter, next, ...asked } = hold;
  const { ifDenied, ...silent } = hold;
  const mailed = { ...asked, byMail: true };
  const reminded = { ...mailed, remindAfter: remindAfter ?? USUAL };
  return (
    <>
      <span className="text-muted">by</span>
      <div className="w-56 max-sm:w-full">
        <OwnerChoice
          tables={tables}
          label={`Who is asked, ${name}`}
          hideLabel
          nobody="choose who is asked"
          record="contact"
          owner={hold.by}
          destination={destination}
          change={(by) => by && put({ ...hold, by })}
        />
      </div>
      <Box checked={hold.byMail ?? false} change={(on) => put(on ? mailed : asked)}>
        also by mail
      </Box>
      {hold.byMail && (
        <span className="flex flex-wrap items-center gap-2">
          <Box checked={remindAfter !== undefined} change={(on) => put(on ? reminded : mailed)}>
            again after
          </Box>
          {remindAfter !== undefined && (
            <>
              <DaysToConfirm
                label={`Days until the ${name} is asked for again`}
                within={remindAfter}
                change={(days) => put({ ...hold, remindAfter: days })}
              />
              <span className="text-muted">days, then also</span>
              <div className="w-56 max-sm:w-full">
                <OwnerChoice
                  tables={tables}
                  label={`Who is asked next, ${name}`}
                  hideLabel
                  nobody="nobody else"
                  record="contact"
                  owner={next}
                  destination={destination}
                  change={(other) => put(other ? { ...hold, next: other } : reminded)}
                />
              </div>
            </>
          )}
        </span>
      )}
      <span className="flex items-center gap-2">
        <span className="text-muted">after a no</span>
        <SelectField
          label={`What the visitor is written after a no, ${name}`}
          hideLabel
          value={ifDenied ?? ''}
          onChange={({ target }) => put(target.value ? { ...hold, ifDenied: target.value } : silent)}
        >
          <option value="">the visitor is written nothing</option>
          {(destination.templates ?? []).map((template) => (
            <option key={template.key} value={template.key}>
              the visitor is written “{template.name}”
            </option>
          ))}
        </SelectField>
      </span>
    </>
  );
}

function Box({ checked, change, children }: { checked: boolean; change: (on: boolean) => void; children: string }) {
  return (
    <label className="flex items-center gap-1.5 text-small">
      <input type="checkbox" checked={checked} onChange={({ target }) => change(target.checked)} />
      {children}
    </label>
  );
}
