import { useState } from 'react';
import { Button } from '../components/button';
import { SelectField } from '../components/text-field';
import { useDraft } from './draft';
import { ManyResult } from './many-result';
import { useComparison } from './use-comparison';

const AMOUNTS = [100, 1_000, 10_000];

/** The draft against the version that runs, over what arrived last. */
export function RehearseMany({ routeId, version }: { routeId: string; version: number | null }) {
  const save = useDraft(({ save }) => save);
  const [last, setLast] = useState(1_000);
  const { found, begin, beginning, cancel } = useComparison(routeId);
  return (
    <div className="flex flex-col gap-3">
      <p className="text-muted">
        {version === null
          ? 'What the draft would do with what arrived already. Nothing is written.'
          : `What the draft would do against version ${version}, upon the records as they are. Nothing is written.`}
      </p>
      <div className="flex items-end gap-3">
        <SelectField label="The latest" value={last} onChange={({ target }) => setLast(Number(target.value))}>
          {AMOUNTS.map((amount) => (
            <option key={amount} value={amount}>
              {amount.toLocaleString('en-GB')} submissions
            </option>
          ))}
        </SelectField>
        <Button
          look="main"
          disabled={beginning || found?.state === 'working'}
          onClick={() => void save().then(() => begin({ last }))}
        >
          Rehearse them
        </Button>
      </div>
      {found && <ManyResult found={found} cancel={cancel} />}
    </div>
  );
}
