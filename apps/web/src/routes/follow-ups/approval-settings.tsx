import type { ApprovalHold, Destination } from '@haycart/core';
import { OwnerChoice } from '../../components/owner-choice';

/** Who says yes, and whether they are written a mail. */
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
  return (
    <>
      <span className="text-muted">by</span>
      <div className="w-56 max-sm:w-full">
        <OwnerChoice
          label={`Who is asked, ${name}`}
          hideLabel
          nobody="choose who is asked"
          record="contact"
          owner={hold.by}
          destination={destination}
          change={(by) => by && put({ ...hold, by })}
        />
      </div>
      <label className="flex items-center gap-1.5 text-small">
        <input
          type="checkbox"
          checked={hold.byMail ?? false}
          onChange={({ target }) => {
            const { byMail: _, ...rest } = hold;
            put(target.checked ? { ...rest, byMail: true } : (rest as ApprovalHold));
          }}
        />
        also by mail
      </label>
    </>
  );
}
