import type { SessionShape } from '@haycart/api';
import { Suspense, useEffect, useRef, useState } from 'react';
import { Outlet } from 'react-router';
import { Toaster } from 'sonner';
import { useLiveUpdates } from '../api/live-updates';
import { keysAreTaken } from '../components/list-keys';
import { Loading } from '../components/status';
import { Band } from './band';
import { KeysDialog } from './keys-dialog';
import { usePageTitle } from './page-title';
import { SearchDialog } from './search-dialog';

/** What stands around every page for people who are signed in. */
export function Frame({ session }: { session: SessionShape }) {
  const [searching, setSearching] = useState(false);
  const [showingKeys, setShowingKeys] = useState(false);
  const page = useRef<HTMLElement>(null);
  const title = usePageTitle(page);
  useLiveUpdates();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setSearching(true);
      } else if (event.key === '?' && !keysAreTaken(event)) setShowingKeys(true);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return (
    <div className="flex h-dvh flex-col">
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-raised focus:p-2">
        To the page
      </a>
      <p role="status" aria-label="Where you are" className="sr-only">
        {title}
      </p>
      <Band session={session} search={() => setSearching(true)} />
      <main id="page" ref={page} className="min-h-0 flex-1">
        <Suspense fallback={<Loading />}>
          <Outlet />
        </Suspense>
      </main>
      <SearchDialog open={searching} close={() => setSearching(false)} />
      <KeysDialog open={showingKeys} close={() => setShowingKeys(false)} />
      <Toaster
        position="bottom-left"
        toastOptions={{ className: '!rounded !border-line !bg-raised !text-ink !font-(family-name:--font-text)' }}
      />
    </div>
  );
}
