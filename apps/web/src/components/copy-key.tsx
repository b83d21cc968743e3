import { toast } from 'sonner';
import { Mono } from './sheet';

/** A key that routes and scripts use; a click copies it. */
export function CopyKey({ text }: { text: string }) {
  const copy = () =>
    void navigator.clipboard.writeText(text).then(
      () => toast(`Copied ${text}.`),
      () => toast.error('The browser does not let this page copy.'),
    );
  return (
    <button
      type="button"
      onClick={copy}
      title="The key never changes, whatever the name. Click to copy it."
      aria-label={`Copy the key ${text}`}
      className="max-w-full truncate rounded-sm px-1.5 hover:bg-slate-soft"
    >
      <Mono className="text-muted">{text}</Mono>
    </button>
  );
}
