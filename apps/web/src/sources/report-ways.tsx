import { Link, useLocation } from 'react-router';
import { useAddress } from '../state/use-address';

const WAYS = [
  ['/sources', 'What it came by'],
  ['/sources/funnel', 'Funnel'],
  ['/sources/months', 'Months'],
] as const;
/** Parts of the address that every report of sources goes by. */
const SHARED = ['period', 'basis', 'intake', 'dealFilter', 'contactFilter', 'companyFilter'];

/** The ways between the reports of sources, which keep what they are narrowed to; and to the campaigns. */
export function ReportWays() {
  const { pathname } = useLocation();
  const [params] = useAddress();
  const shared = new URLSearchParams(SHARED.flatMap((name) => (params.has(name) ? [[name, params.get(name)!]] : [])));
  return (
    <nav aria-label="Reports of sources" className="ml-auto flex gap-1.5 max-sm:ml-0">
      {[...WAYS, ['/sources/campaigns', 'Campaigns'] as const].map(([path, name]) => (
        <Link
          key={path}
          to={`${path}${shared.size && path !== '/sources/campaigns' ? `?${String(shared)}` : ''}`}
          aria-current={pathname === path ? 'page' : undefined}
          className={`inline-flex h-7 items-center rounded border px-2 font-semibold whitespace-nowrap ${
            pathname === path ? 'border-ink bg-sheet' : 'border-line bg-raised hover:bg-hair'
          }`}
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}
