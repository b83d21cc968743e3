import { daysToConfirm, MOST_DAYS_TO_CONFIRM } from '@haycart/core';
import { TextField } from '../../components/text-field';

/** For how many days something can be confirmed, as an ISO 8601 duration. */
export function DaysToConfirm({
  label,
  within,
  change,
}: {
  label: string;
  within: string | undefined;
  change: (within: string) => void;
}) {
  return (
    <TextField
      label={label}
      hideLabel
      type="number"
      min={1}
      max={MOST_DAYS_TO_CONFIRM}
      value={daysToConfirm(within) ?? ''}
      onChange={({ target }) => change(`P${target.value.replace(/\D/g, '').slice(0, 3) || '0'}D`)}
      className="!w-20 text-right tabular-nums"
    />
  );
}
