import { TextField } from '../components/text-field';

/** How many messages or mails a receiver takes a minute. */
export function PerMinuteField({
  value,
  error,
  change,
}: {
  value: string;
  error: string | undefined;
  change: (value: string) => void;
}) {
  return (
    <TextField
      label="At most a minute"
      inputMode="numeric"
      placeholder="any number"
      help="More than these wait for their turn."
      value={value}
      error={error}
      onChange={({ target }) => change(target.value)}
    />
  );
}

/** What is typed as a number; null for nothing. */
export function numberOrNull(text: string): number | null {
  return text.trim() === '' ? null : Number(text);
}
