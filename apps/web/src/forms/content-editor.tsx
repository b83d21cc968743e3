import type { Content } from '@haycart/core';
import { Plus } from 'lucide-react';
import { Button } from '../components/button';
import { TextRow } from './row';

const WITH_PARTS: ReadonlySet<string> = new Set(['image', 'video', 'gallery', 'logos', 'social']);

/** What stands between questions, edited. */
export function ContentEditor({ content, change }: { content: Content; change: (part: Partial<Content>) => void }) {
  const { type, text, parts = [] } = content;
  if (type === 'divider') return null;
  if (!WITH_PARTS.has(type))
    return (
      <TextRow
        label={type === 'html' ? 'Code' : 'Words'}
        value={text}
        lines={type === 'html' ? 6 : type === 'text-block' ? 4 : 1}
        mono={type === 'html'}
        change={(next) => change({ text: next })}
      />
    );
  const one = type === 'image' || type === 'video';
  const shown = one && !parts.length ? [{ address: '', text: '' }] : parts;
  const put = (index: number, part: { address: string; text: string } | null) => {
    const next = part ? shown.toSpliced(index, 1, part) : shown.toSpliced(index, 1);
    change({ parts: next.length ? next : undefined });
  };
  return (
    <>
      {shown.map((part, index) => (
        <div key={index} className="flex flex-col gap-1">
          <TextRow
            label="Address"
            placeholder="https://"
            value={part.address}
            change={(address) => put(index, { ...part, address: address ?? '' })}
          />
          <TextRow
            label={type === 'video' || type === 'social' ? 'Words' : 'It shows'}
            value={part.text}
            change={(words) => put(index, { ...part, text: words ?? '' })}
          />
        </div>
      ))}
      {!one && (
        <Button className="self-start" onClick={() => change({ parts: [...parts, { address: 'https://', text: '' }] })}>
          <Plus className="size-3.5" aria-hidden /> Another
        </Button>
      )}
    </>
  );
}
