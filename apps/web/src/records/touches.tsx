import type { TouchShape } from '@haycart/api';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from '../components/button';
import { Sheet } from '../components/sheet';
import { Time } from '../components/time';
import { CorrectSource } from './correct-source';

/** Where somebody came from, the first source first. */
export function Touches({ touches }: { touches: readonly TouchShape[] }) {
  const [corrected, setCorrected] = useState<TouchShape | null>(null);
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Where they came from</h2>
      <ol>
        {touches.map((touch, index) => (
          <li
            key={touch.visit}
            className="grid grid-cols-[44px_minmax(0,1fr)_auto_auto] items-baseline gap-x-3 border-b border-hair py-1 last:border-b-0"
          >
            <span className="text-small text-muted">{index === 0 ? 'first' : 'later'}</span>
            <span className="min-w-0 truncate" title={touch.page ?? undefined}>
              <b className="font-semibold">{touch.source}</b>{' '}
              <span className="text-muted">
                {[touch.channel, touch.medium, touch.campaign].filter(Boolean).join(', ')}
              </span>
            </span>
            <Time at={touch.at} className="text-muted" />
            <IconButton
              label={`Say where ${touch.source} came from`}
              className="!size-6 text-muted"
              onClick={() => setCorrected(touch)}
            >
              <Pencil className="size-3.5" aria-hidden />
            </IconButton>
            {(touch.seen ?? touch.said) && (
              <span className="col-span-3 col-start-2 min-w-0 text-small text-muted">
                {[
                  touch.seen && `corrected; seen was ${[touch.seen.source, touch.seen.channel].join(', ')}`,
                  touch.said && `said “${touch.said}”`,
                ]
                  .filter(Boolean)
                  .join('; ')}
              </span>
            )}
          </li>
        ))}
      </ol>
      {corrected && <CorrectSource touch={corrected} close={() => setCorrected(null)} />}
    </Sheet>
  );
}
