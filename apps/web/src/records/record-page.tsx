import type { AnswerClock as AnswerClockShape, RecordShape } from '@haycart/api';
import type { FieldDefinition } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceStrict } from 'date-fns';
import { Trash2 } from 'lucide-react';
import { useEffect } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { offerUndo } from '../api/edits';
import { fieldsQuery, recordSheetQuery } from '../api/queries';
import { useWords } from '../api/words';
import { PLURALS } from '../api/record-kinds';
import { AnswerClock } from '../components/answer-clock';
import { IconButton } from '../components/button';
import { recordNumber } from '../components/format';
import { Mono, PageHead } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { ApiError } from '../api/client';
import { Consents } from './consents';
import { Files } from './files';
import { LeadActions } from './lead-actions';
import { Links } from './links';
import { Merged } from './merged';
import { PlaceOf } from './place-of';
import { RecordHistory } from './record-history';
import { Tasks } from './tasks';
import { Touches } from './touches';
import { Values } from './values';

/** One record: its values at the left, edited in place and each with its trace; what happened to it at the right. */
export function RecordPage() {
  const { kind = '', id = '' } = useParams();
  const sheet = useQuery(recordSheetQuery(kind, id));
  const fields = useQuery(fieldsQuery);
  const navigate = useNavigate();
  const present = sheet.data?.record.id;
  // The address of a record that was merged leads to what it is part of.
  useEffect(() => {
    if (present && present !== id) void navigate(`/records/${kind}/${present}`, { replace: true });
  }, [present, id, kind, navigate]);
  if (sheet.isError && sheet.error instanceof ApiError && sheet.error.problem.status === 404)
    return (
      <Empty title="This record is not there">
        The address is not right, or it was deleted: look among{' '}
        <Link to={`/records/deleted/${kind}`} className="text-slate hover:underline">
          what was deleted
        </Link>
        .
      </Empty>
    );
  if (sheet.isError) return <Failed error={sheet.error} retry={() => void sheet.refetch()} />;
  if (sheet.isPending || fields.isPending) return <Loading />;
  const { record, history, touches, notes, tasks, files, consents } = sheet.data;
  const own = (fields.data ?? []).filter((field) => field.record === record.kind);
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead title={record.name} aside={<Mono>{recordNumber(record.kind, record.number)}</Mono>}>
        {record.answer && <Answered clock={record.answer} />}
        {record.kind === 'lead' && <LeadActions lead={record} />}
        {record.kind !== 'contact' && record.kind !== 'company' && <PlaceOf record={record} />}
        <DeleteRecord record={record} />
      </PageHead>
      <div className="grid gap-5 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <div className="flex min-w-0 flex-col gap-5">
          <Values record={record} fields={own} history={history} />
          <Links record={record} fields={fields.data as FieldDefinition[]} />
          {record.kind === 'contact' && <Consents contact={record.id} consents={consents} />}
          <Merged record={record} />
          <Files record={record} files={files} />
          {touches.length > 0 && <Touches touches={touches} />}
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          <Tasks record={record} tasks={tasks} />
          <RecordHistory sheet={sheet.data} fields={own} notes={notes} />
        </div>
      </div>
    </div>
  );
}

/** Until when the record is to be answered, or when and by whom it was. */
function Answered({ clock: { at, due, touchedAt, touchedBy } }: { clock: AnswerClockShape }) {
  if (touchedAt === null) return <AnswerClock due={due} className="self-center" />;
  return (
    <span className="self-center text-small text-muted">
      answered by {touchedBy} {formatDistanceStrict(new Date(at), new Date(touchedAt))} after it came
      {touchedAt > due && <span className="text-brick">, late</span>}
    </span>
  );
}

function DeleteRecord({ record }: { record: RecordShape }) {
  const words = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const plural = PLURALS[record.kind];
  const remove = useMutation({
    mutationFn: () => call<Parameters<typeof offerUndo>[1]>('DELETE', `/${plural}/${record.id}`),
    onSuccess: async (done) => {
      await navigate(`/records/${plural}`);
      offerUndo(client, done);
      await client.invalidateQueries({ queryKey: ['records', 'list'] });
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <IconButton
      label={`Delete this ${words.one(record.kind)}`}
      disabled={remove.isPending}
      onClick={() => remove.mutate()}
    >
      <Trash2 className="size-4" aria-hidden />
    </IconButton>
  );
}
