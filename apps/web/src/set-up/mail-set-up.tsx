import { useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { mailTemplatesQuery } from '../api/queries';
import { buttonLook } from '../components/button';
import { Empty, Failed, Loading } from '../components/status';
import { MailFiles } from './mail-files';
import { MailServer } from './mail-server';
import { MailTemplateEditor } from './mail-template-editor';
import { SetUpPage } from './set-up-page';
import { SideLink } from './side-link';

const SERVER = 'server';
const NEW = 'new';
const FILES = 'files';

/** By which server mail is sent, and the templates by which it is written. */
export function MailSetUp() {
  const { key = SERVER } = useParams();
  const templates = useQuery(mailTemplatesQuery);
  const open = templates.data?.find((one) => one.key === key);
  return (
    <SetUpPage
      about="what is written to visitors and to others"
      list="Mail server and templates"
      action={
        <Link to={`/set-up/mail/${NEW}`} className={buttonLook('main')}>
          <Plus className="size-4" aria-hidden /> New template
        </Link>
      }
      side={
        <>
          <SideLink to="/set-up/mail" name="Mail server" chosen={key === SERVER}>
            how mail is sent
          </SideLink>
          <SideLink to={`/set-up/mail/${FILES}`} name="Files" chosen={key === FILES}>
            what mails can have attached
          </SideLink>
          {templates.data?.map((one) => (
            <SideLink key={one.key} to={`/set-up/mail/${one.key}`} name={one.name} chosen={key === one.key}>
              {one.subject}
            </SideLink>
          ))}
        </>
      }
    >
      {key === SERVER ? (
        <MailServer />
      ) : key === FILES ? (
        <MailFiles />
      ) : templates.isPending ? (
        <Loading lines={8} />
      ) : templates.isError ? (
        <Failed error={templates.error} retry={() => void templates.refetch()} />
      ) : key === NEW || open ? (
        <MailTemplateEditor key={key} template={open ?? null} />
      ) : (
        <Empty title="There is no such template">Choose one at the left, or make a new one.</Empty>
      )}
    </SetUpPage>
  );
}
