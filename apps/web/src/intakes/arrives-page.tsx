import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { intakeQuery, profileQuery } from '../api/queries';
import { buttonLook } from '../components/button';
import { PageHead } from '../components/sheet';
import { Empty, Failed, Loading } from '../components/status';
import { WhatArrives } from './what-arrives';

/** What an intake has really received, as a page of its own: a form’s page is where it is built. */
export function ArrivesPage() {
  const { id = '' } = useParams();
  const intake = useQuery(intakeQuery(id));
  const profile = useQuery(profileQuery(id));
  if (intake.isPending || profile.isPending) return <Loading />;
  if (intake.isError) return <Failed error={intake.error} retry={() => void intake.refetch()} />;
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead
        title={intake.data.name}
        aside={
          <Link to={`/intakes/${intake.data.key}`} className="hover:underline">
            back to the {intake.data.kind}
          </Link>
        }
      >
        <Link to={`/submissions?intake=${intake.data.key}`} className={buttonLook('quiet')}>
          Its submissions
        </Link>
      </PageHead>
      {profile.data?.fields.length ? (
        <WhatArrives intakeKey={intake.data.key} />
      ) : (
        <Empty title="Nothing has arrived yet">Every field that arrives is listed here, with what it contains.</Empty>
      )}
    </div>
  );
}
