import {
  LINK_TO_COME,
  renderMail,
  withLibraries,
  type MailTexts,
  type MailValues,
  type RenderedMail,
} from '@haycart/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { intakeLinesQuery, latestSubmissionsQuery } from '../api/queries';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { RenderedMailView } from '../components/rendered-mail';
import { SelectField } from '../components/text-field';

/** Values that stand for those of a run, where a template is looked at by itself. */
const EXAMPLE = {
  contact: { first_name: 'Maren', last_name: 'Oduya', full_name: 'Maren Oduya', email: 'maren@fennwick.example' },
  lead: { name: 'Maren Oduya', email: 'maren@fennwick.example' },
  company: { name: 'Fennwick Academy' },
  deal: { name: 'Fennwick Academy, Maren Oduya' },
  route: { name: 'Enquiries' },
  confirm: { link: LINK_TO_COME },
  unsubscribe: { link: LINK_TO_COME },
};

/** What a template makes of an example, as it is typed; it can be sent to oneself. */
export function MailPreview({ template }: { template: MailTexts }) {
  const intakes = useQuery(intakeLinesQuery).data?.filter(({ archived }) => !archived) ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const intake = chosen ?? intakes[0]?.key ?? '';
  const latest = useQuery({ ...latestSubmissionsQuery(intake, 1), enabled: intake !== '' }).data?.items[0];
  const { subject, text, html } = useDeferredValue(template);
  const answers = latest?.payload ?? {};
  const rendered = useQuery({
    queryKey: ['mail-preview', subject, text, html, latest?.id],
    queryFn: () => withLibraries(() => renderMail({ subject, text, html }, { ...EXAMPLE, answers } as MailValues)),
    placeholderData: (before: RenderedMail | null | undefined) => before,
  }).data;
  const test = useMutation({
    mutationFn: (mail: RenderedMail) => call<{ to: string }>('POST', '/mail-server/test', mail),
    onSuccess: ({ to }) => toast(`It was taken for ${to}.`),
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Sheet className="flex flex-col gap-3 self-start p-4">
      <header className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-lg">Preview</h2>
        <Button onClick={() => rendered && test.mutate(rendered)} disabled={!rendered || test.isPending}>
          {test.isPending ? 'Sending …' : 'Send it to me'}
        </Button>
      </header>
      <SelectField
        label="With the latest answers of"
        value={intake}
        help={latest ? 'Records are made up here; a route’s rehearsal shows real ones.' : 'Nothing has come there yet.'}
        onChange={({ target }) => setChosen(target.value)}
      >
        {intakes.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </SelectField>
      {rendered === null ? (
        <p role="alert" className="text-brick">
          This is no Liquid template yet, or uses a tag or filter that cannot be used here.
        </p>
      ) : (
        rendered && <RenderedMailView mail={rendered} />
      )}
    </Sheet>
  );
}
