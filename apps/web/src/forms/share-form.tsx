import type { IntakeShape } from '@haycart/api';
import { expectedHeight } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import QRCode from 'qrcode';
import { useState } from 'react';
import { Link } from 'react-router';
import { formDomainsQuery } from '../api/queries';
import { Copyable } from '../components/copyable';
import { Dialog } from '../components/dialog';
import { SelectField } from '../components/text-field';

const WAYS = { page: 'in the page', button: 'behind a button', slide: 'sliding in at the side' } as const;

/** Where a domain of one’s own leads: the same scheme and port as this page, which stands before the same server. */
function originOf(domain: string): string {
  const { protocol, port } = window.location;
  return `${protocol}//${domain}${port ? `:${port}` : ''}`;
}

/** The ways to a published form: its link, a QR code of it, and what stands in other pages. None of them ever changes. */
export function ShareForm({ intake, close }: { intake: IntakeShape; close: () => void }) {
  const [how, setHow] = useState<keyof typeof WAYS>('page');
  const [host, setHost] = useState(false);
  const [domain, setDomain] = useState('');
  const domains = (useQuery(formDomainsQuery).data ?? []).filter(({ provenAt }) => provenAt !== null);
  const origin = domain ? originOf(domain) : window.location.origin;
  const link = domain ? `${origin}/${intake.slug}` : `${origin}${intake.address}`;
  const code = useQuery({
    queryKey: ['qr', link],
    queryFn: () => QRCode.toString(link, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' }),
    staleTime: Infinity,
  });
  const attributes = [
    ...(how === 'page' ? [] : [`data-how="${how}"`, `data-label="${intake.form?.button ?? 'Open'}"`]),
    ...(host ? ['data-look="host"'] : []),
  ];
  const script = `<script src="${origin}/embed/${intake.slug}.js" ${[...attributes, 'async'].join(' ')}></script>`;
  // The room is kept from the beginning, so that what stands beneath does not jump when the form is there.
  const embed =
    how === 'page' && intake.form ? `<div style="min-height:${expectedHeight(intake.form)}px">${script}</div>` : script;
  const image = code.data ? `data:image/svg+xml;utf8,${encodeURIComponent(code.data)}` : null;
  return (
    <Dialog open wide close={close} title={`Link and embed “${intake.name}”`}>
      <div className="grid gap-5 sm:grid-cols-[minmax(0,1fr)_168px]">
        <div className="flex min-w-0 flex-col gap-4">
          <section>
            <h3 className="mb-1 text-[14px]">Link</h3>
            {domains.length > 0 && (
              <div className="mb-2">
                <SelectField label="Domain" value={domain} onChange={({ target }) => setDomain(target.value)}>
                  <option value="">{window.location.host}</option>
                  {domains.map(({ host }) => (
                    <option key={host} value={host}>
                      {host}
                    </option>
                  ))}
                </SelectField>
              </div>
            )}
            {intake.forColleagues && (
              <p className="mb-2 rounded border border-straw bg-straw-soft px-2.5 py-1.5">
                This form is for colleagues only: the link opens for those who have an entry link. They get theirs in{' '}
                <Link to={`/intakes/${intake.key}/entry`} className="underline">
                  quick entry
                </Link>
                .
              </p>
            )}
            <Copyable text={link} label="link" />
            <p className="mt-1 text-small text-muted">
              Campaign parameters in the link are recorded as the source.{' '}
              <a href={link} target="_blank" rel="noreferrer" className="text-slate underline">
                Open the form
              </a>
            </p>
          </section>
          <section>
            <h3 className="mb-1 text-[14px]">In another page</h3>
            <SelectField
              label="How it opens"
              value={how}
              onChange={({ target }) => setHow(target.value as keyof typeof WAYS)}
            >
              {Object.entries(WAYS).map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </SelectField>
            <label className="mt-2 flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-green"
                checked={host}
                onChange={({ target }) => setHost(target.checked)}
              />
              in the colours of that page, as far as they can be read
            </label>
            <div className="mt-2">
              <Copyable text={embed} label="embed code" />
            </div>
            <p className="mt-1 text-small text-muted">
              It sets no cookie, leaves the page’s style alone, and follows every new version by itself. When it was
              sent, the page hears the event haycart:sent.
            </p>
          </section>
        </div>
        {image && (
          <figure>
            <img src={image} alt={`QR code of ${link}`} className="w-full border border-line bg-paper" />
            <a
              href={image}
              download={`${intake.slug}.svg`}
              className="mt-1 block text-center text-small text-slate underline"
            >
              Take the code away
            </a>
          </figure>
        )}
      </div>
    </Dialog>
  );
}
