import type { RouteShape } from '@haycart/api';
import { useMutation } from '@tanstack/react-query';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { IconButton } from '../components/button';
import { saveAs } from '../components/save-as';
import { messageOf } from '../components/status';
import { TakeBackDialog } from '../components/take-back';
import { CatchUp } from './catch-up';
import { useDraft } from './draft';
import { RouteVersions } from './route-versions';

const ITEM = 'cursor-pointer rounded px-2 py-1 outline-none data-[highlighted]:bg-straw-soft';

/** What is done with a route as a whole, besides editing it. */
export function RouteMenu({ route }: { route: RouteShape }) {
  const navigate = useNavigate();
  const [asking, setAsking] = useState<'versions' | 'catch-up' | 'take-back' | null>(null);
  const definition = useDraft(({ value }) => value);
  const done = () => setAsking(null);
  const copy = useMutation({
    mutationFn: () =>
      call<RouteShape>('POST', '/routes', { definition: { ...definition, name: `${definition!.name}, copy` } }),
    onSuccess: ({ id }) => {
      toast('The copy is a draft; nothing of it runs yet.');
      void navigate(`/routes/${id}`);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const takeAway = () => {
    const file = `${route.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.route.json`;
    saveAs(file, 'application/json', JSON.stringify(definition, null, 2));
  };
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <IconButton label="More about this route">
            <Ellipsis className="size-4" aria-hidden />
          </IconButton>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-30 min-w-52 rounded border border-line bg-raised p-1 shadow-xl"
          >
            <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('versions')}>
              Versions
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void navigate(`/submissions?route=${route.id}`)}>
              Its submissions
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            <DropdownMenu.Item className={ITEM} onSelect={() => copy.mutate()}>
              Copy
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={takeAway}>
              Export as JSON
            </DropdownMenu.Item>
            {route.version !== null && (
              <>
                <DropdownMenu.Separator className="my-1 border-t border-line" />
                <DropdownMenu.Item
                  className={ITEM}
                  disabled={route.state !== 'live'}
                  onSelect={() => setAsking('catch-up')}
                >
                  Process missed submissions…
                </DropdownMenu.Item>
                <DropdownMenu.Item className={ITEM} onSelect={() => setAsking('take-back')}>
                  Take back all it wrote…
                </DropdownMenu.Item>
              </>
            )}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {asking === 'versions' && <RouteVersions route={route} close={done} />}
      {asking === 'catch-up' && <CatchUp route={route} close={done} />}
      {asking === 'take-back' && (
        <TakeBackDialog title={`Take back all that “${route.name}” wrote`} choice={{ route: route.id }} close={done} />
      )}
    </>
  );
}
