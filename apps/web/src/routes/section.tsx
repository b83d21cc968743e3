import { ChevronDown } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import type { ReactNode } from 'react';
import { useAddress } from '../state/use-address';

/** One numbered section of the route sheet: a summary line in plain words that opens to be edited. */
export function Section({
  number,
  name,
  title,
  summary,
  problems,
  children,
}: {
  number: number;
  name: string;
  title: string;
  summary: string;
  problems: number;
  children: ReactNode;
}) {
  const [params, set] = useAddress();
  const open = (params.get('section') ?? 'mapping') === name;
  const toggle = (next: boolean) => set('section', next ? name : 'none');
  return (
    <Collapsible.Root
      open={open}
      onOpenChange={toggle}
      className={`border-b border-line bg-sheet last:border-b-0 ${open ? 'shadow-[inset_4px_0_0_var(--color-straw)]' : ''}`}
    >
      <h2>
        <Collapsible.Trigger className="flex w-full items-center gap-4 px-3 py-2.5 text-left font-(family-name:--font-text) text-[14px] font-normal tracking-normal hover:bg-raised">
          <span className="w-5 flex-none font-heading text-base font-semibold text-faint">{number}</span>
          <span className="min-w-0 flex-1">
            <b className="font-semibold">{title}</b> <span className="text-muted">{summary}</span>
            {problems > 0 && (
              <span className="ml-2 font-semibold text-brick">
                {problems === 1 ? '1 thing in the way' : `${problems} things in the way`}
              </span>
            )}
          </span>
          <ChevronDown className={`size-4 flex-none transition-transform ${open ? 'rotate-180' : ''}`} aria-hidden />
        </Collapsible.Trigger>
      </h2>
      <Collapsible.Content className="px-3 pb-3">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
