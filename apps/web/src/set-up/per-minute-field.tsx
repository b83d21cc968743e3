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

/** What is typed as a number; null for nothing. What is none stays as it is typed, for the server to say so. */
export function numberOrNull(text: string): number | string | null {
  const number = Number(text);
  return text.trim() === '' ? null : Number.isNaN(number) ? text : number;
}
