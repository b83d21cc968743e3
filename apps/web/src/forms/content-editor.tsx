import type { Content } from '@haycart/core';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { Button, IconButton } from '../components/button';
import { PictureRow } from './picture-row';
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
  const isPicture = type === 'image' || type === 'gallery' || type === 'logos';
  const shown = one && !parts.length ? [{ address: '', text: '' }] : parts;
  const put = (index: number, part: { address: string; text: string } | null) => {
    const next = part ? shown.toSpliced(index, 1, part) : shown.toSpliced(index, 1);
    change({ parts: next.length ? next : undefined });
  };
  return (
    <>
      {shown.map((part, index) => (
        <div key={index} className="flex flex-col gap-1">
          {isPicture ? (
            <PictureRow
              label="Picture"
              value={part.address}
              change={(address) => put(index, { ...part, address: address ?? '' })}
            />
          ) : (
            <TextRow
              label="Address"
              placeholder="https://"
              value={part.address}
              change={(address) => put(index, { ...part, address: address ?? '' })}
            />
          )}
          <TextRow
            label={isPicture ? 'It shows' : 'Words'}
            value={part.text}
            change={(words) => put(index, { ...part, text: words ?? '' })}
          />
          {!one && parts.length > 1 && (
            <span className="flex justify-end">
              <IconButton
                label={`Move ${index + 1} up`}
                className="!size-7 text-muted"
                disabled={index === 0}
                onClick={() => change({ parts: parts.toSpliced(index, 1).toSpliced(index - 1, 0, part) })}
              >
                <ArrowUp className="size-3.5" aria-hidden />
              </IconButton>
              <IconButton
                label={`Move ${index + 1} down`}
                className="!size-7 text-muted"
                disabled={index === parts.length - 1}
                onClick={() => change({ parts: parts.toSpliced(index, 1).toSpliced(index + 1, 0, part) })}
              >
                <ArrowDown className="size-3.5" aria-hidden />
              </IconButton>
              <IconButton label={`Remove ${index + 1}`} className="!size-7 text-muted" onClick={() => put(index, null)}>
                <Trash2 className="size-3.5" aria-hidden />
              </IconButton>
            </span>
          )}
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
