import { Check, Copy } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from './button';

/** Text for other places, with the way to copy it. */
export function Copyable({ text, label }: { text: string; label: string }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    setCopied(true);
    window.setTimeout(() => setCopied(false), 1_500);
  };
  return (
    <div className="flex items-start gap-2 rounded border border-line bg-raised">
      <pre
        tabIndex={0}
        aria-label={`The ${label}`}
        className="min-w-0 flex-1 overflow-x-auto p-2.5 font-mono text-[12.5px] leading-[18px]"
      >
        {text}
      </pre>
      <IconButton label={copied ? 'Copied' : `Copy the ${label}`} onClick={() => void copy()} className="m-0.5">
        {copied ? <Check className="size-4 text-green" aria-hidden /> : <Copy className="size-4" aria-hidden />}
      </IconButton>
    </div>
  );
}
