import type { TouchShape } from '@haycart/api';
import { Sheet } from '../components/sheet';
import { Time } from '../components/time';

/** Where somebody came from, the first source first. */
export function Touches({ touches }: { touches: readonly TouchShape[] }) {
  return (
    <Sheet className="px-4 py-3">
      <h2 className="mb-1 text-base">Where they came from</h2>
      <ol>
        {touches.map((touch, index) => (
          <li
            key={index}
            className="grid grid-cols-[72px_minmax(0,1fr)_auto] items-baseline gap-3 border-b border-hair py-1 last:border-b-0"
          >
            <span className="text-small text-muted">{index === 0 ? 'first' : 'later'}</span>
            <span className="min-w-0 truncate" title={touch.page ?? undefined}>
              <b className="font-semibold">{touch.source}</b>{' '}
              <span className="text-muted">
                {[touch.channel, touch.medium, touch.campaign].filter(Boolean).join(', ')}
              </span>
            </span>
            <Time at={touch.at} className="text-muted" />
          </li>
        ))}
      </ol>
    </Sheet>
  );
}
