import { useParams } from 'react-router';
import { CartMark } from '../components/cart-mark';
import { EntryDesk } from './entry-desk';

/** Quick entry by a link, without signing in: the form, and what became of what was entered by this link. */
export function OpenEntry() {
  const { secret = '' } = useParams();
  return (
    <main className="flex h-full flex-col">
      <header className="flex h-12 flex-none items-center gap-2 border-b border-line px-5 font-semibold">
        <CartMark className="w-7" /> Hay Cart
      </header>
      <div className="min-h-0 flex-1">
        <EntryDesk secret={secret} signedIn={false} />
      </div>
    </main>
  );
}
