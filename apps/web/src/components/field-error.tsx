/** What is wrong with what was typed, beneath it; nothing where nothing is. */
export function FieldError({ error }: { error: string | undefined }) {
  if (!error) return null;
  return (
    <p role="alert" className="text-small text-brick">
      {error}
    </p>
  );
}
