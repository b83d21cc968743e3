import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo } from 'react';
import { createBrowserRouter, Navigate, useRouteError } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { ApiError, call, noAnswer } from './api/client';
import { sessionQuery } from './api/queries';
import { Empty, Failed, Loading } from './components/status';
import { Frame } from './frame/frame';
import { SignIn } from './sign-in/sign-in';

const Home = lazy(() => import('./home/home').then(({ Home }) => ({ default: Home })));
const Intakes = lazy(() => import('./intakes/intakes').then(({ Intakes }) => ({ default: Intakes })));
const IntakePage = lazy(() => import('./intakes/intake-page').then(({ IntakePage }) => ({ default: IntakePage })));
const ArrivesPage = lazy(() => import('./intakes/arrives-page').then(({ ArrivesPage }) => ({ default: ArrivesPage })));
const Submissions = lazy(() =>
  import('./submissions/submissions').then(({ Submissions }) => ({ default: Submissions })),
);
const Routes = lazy(() => import('./routes/routes').then(({ Routes }) => ({ default: Routes })));
const RoutePages = lazy(() => import('./routes/route-pages').then(({ RoutePages }) => ({ default: RoutePages })));
const RouteSheet = lazy(() => import('./routes/route-sheet').then(({ RouteSheet }) => ({ default: RouteSheet })));
const TablePage = lazy(() => import('./routes/decide/table-page').then(({ TablePage }) => ({ default: TablePage })));
const Records = lazy(() => import('./records/records').then(({ Records }) => ({ default: Records })));
const RecordPage = lazy(() => import('./records/record-page').then(({ RecordPage }) => ({ default: RecordPage })));
const DeletedRecords = lazy(() =>
  import('./records/deleted-records').then(({ DeletedRecords }) => ({ default: DeletedRecords })),
);
const FormPage = lazy(() => import('./forms/form-page').then(({ FormPage }) => ({ default: FormPage })));
const QuickEntry = lazy(() => import('./entry/quick-entry').then(({ QuickEntry }) => ({ default: QuickEntry })));
const PipelinePage = lazy(() =>
  import('./pipeline/pipeline-page').then(({ PipelinePage }) => ({ default: PipelinePage })),
);

const IdentityPage = lazy(() =>
  import('./identity/identity-page').then(({ IdentityPage }) => ({ default: IdentityPage })),
);
const Tasks = lazy(() => import('./tasks/tasks').then(({ Tasks }) => ({ default: Tasks })));
const Decisions = lazy(() => import('./decisions/decisions').then(({ Decisions }) => ({ default: Decisions })));
const PipelinesSetUp = lazy(() =>
  import('./set-up/pipelines-set-up').then(({ PipelinesSetUp }) => ({ default: PipelinesSetUp })),
);
const FieldsSetUp = lazy(() => import('./set-up/fields-set-up').then(({ FieldsSetUp }) => ({ default: FieldsSetUp })));

const ReadySetUp = lazy(() => import('./set-up/ready-set-up').then(({ ReadySetUp }) => ({ default: ReadySetUp })));
const PeopleSetUp = lazy(() => import('./set-up/people-set-up').then(({ PeopleSetUp }) => ({ default: PeopleSetUp })));
const TeamsSetUp = lazy(() => import('./set-up/teams-set-up').then(({ TeamsSetUp }) => ({ default: TeamsSetUp })));
const LabelsSetUp = lazy(() => import('./set-up/labels-set-up').then(({ LabelsSetUp }) => ({ default: LabelsSetUp })));
const WorkspaceSetUp = lazy(() =>
  import('./set-up/workspace-set-up').then(({ WorkspaceSetUp }) => ({ default: WorkspaceSetUp })),
);

const ValueSetsSetUp = lazy(() =>
  import('./set-up/value-sets-set-up').then(({ ValueSetsSetUp }) => ({ default: ValueSetsSetUp })),
);
const ChannelsSetUp = lazy(() =>
  import('./set-up/channels-set-up').then(({ ChannelsSetUp }) => ({ default: ChannelsSetUp })),
);
const SourcesSetUp = lazy(() =>
  import('./set-up/sources/sources-set-up').then(({ SourcesSetUp }) => ({ default: SourcesSetUp })),
);
const CohortsPage = lazy(() => import('./sources/cohorts').then(({ CohortsPage }) => ({ default: CohortsPage })));
const FunnelPage = lazy(() =>
  import('./sources/funnel/funnel-page').then(({ FunnelPage }) => ({ default: FunnelPage })),
);
const CampaignsPage = lazy(() =>
  import('./sources/campaigns/campaigns-page').then(({ CampaignsPage }) => ({ default: CampaignsPage })),
);
const CampaignPage = lazy(() =>
  import('./sources/campaigns/campaign-page').then(({ CampaignPage }) => ({ default: CampaignPage })),
);
const MailSetUp = lazy(() => import('./set-up/mail-set-up').then(({ MailSetUp }) => ({ default: MailSetUp })));
const OutboxSetUp = lazy(() => import('./set-up/outbox-set-up').then(({ OutboxSetUp }) => ({ default: OutboxSetUp })));
const AuditSetUp = lazy(() => import('./set-up/audit-set-up').then(({ AuditSetUp }) => ({ default: AuditSetUp })));
const TokensSetUp = lazy(() => import('./set-up/tokens-set-up').then(({ TokensSetUp }) => ({ default: TokensSetUp })));
const BalancePage = lazy(() => import('./balance/balance-page').then(({ BalancePage }) => ({ default: BalancePage })));
const SourcesPage = lazy(() => import('./sources/sources-page').then(({ SourcesPage }) => ({ default: SourcesPage })));
const FairnessPage = lazy(() =>
  import('./fairness/fairness-page').then(({ FairnessPage }) => ({ default: FairnessPage })),
);
const Account = lazy(() => import('./account/account').then(({ Account }) => ({ default: Account })));
const Welcome = lazy(() => import('./sign-in/welcome').then(({ Welcome }) => ({ default: Welcome })));

const OpenEntry = lazy(() => import('./entry/open-entry').then(({ OpenEntry }) => ({ default: OpenEntry })));

/** What opens without signing in, by a link that is secret. */
const OPEN = /^\/(entry|welcome)\//;

export function App() {
  return OPEN.test(window.location.pathname) ? <OpenApplication /> : <OwnApplication />;
}

function OpenApplication() {
  const router = useMemo(
    () =>
      createBrowserRouter([
        {
          path: 'entry/:secret',
          element: (
            <Suspense fallback={<Loading />}>
              <OpenEntry />
            </Suspense>
          ),
          errorElement: <PageFailed />,
        },
        {
          path: 'welcome/:secret',
          element: (
            <Suspense fallback={<Loading />}>
              <Welcome />
            </Suspense>
          ),
          errorElement: <PageFailed />,
        },
      ]),
    [],
  );
  return <RouterProvider router={router} />;
}

/** The whole application: sign-in for those who are not, else the frame with its pages, each loaded when first seen. */
function OwnApplication() {
  const session = useQuery(sessionQuery);
  const router = useMemo(
    () =>
      session.data &&
      createBrowserRouter([
        {
          element: <Frame session={session.data} />,
          errorElement: <PageFailed />,
          children: [
            { index: true, element: <Home /> },
            { path: 'intakes', element: <Intakes /> },
            { path: 'intakes/:id', element: <IntakePage /> },
            { path: 'intakes/:id/arrives', element: <ArrivesPage /> },
            { path: 'intakes/:id/form', element: <FormPage /> },
            { path: 'intakes/:id/entry', element: <QuickEntry /> },
            { path: 'submissions', element: <Submissions /> },
            { path: 'routes', element: <Routes /> },
            {
              path: 'routes/:id',
              element: <RoutePages />,
              children: [
                { index: true, element: <RouteSheet /> },
                { path: 'decide/:table', element: <TablePage /> },
              ],
            },
            { path: 'records', element: <Navigate to="/records/contacts" replace /> },
            { path: 'records/recognition', element: <IdentityPage /> },
            { path: 'records/deleted/:kind', element: <DeletedRecords /> },
            { path: 'records/:kind', element: <Records /> },
            { path: 'records/:kind/:id', element: <RecordPage /> },
            { path: 'pipeline', element: <PipelinePage /> },
            { path: 'pipeline/:key', element: <PipelinePage /> },
            { path: 'decide', element: <Decisions /> },
            { path: 'decide/:id', element: <Decisions /> },
            { path: 'tasks', element: <Tasks /> },
            { path: 'balance', element: <BalancePage /> },
            { path: 'sources', element: <SourcesPage /> },
            { path: 'sources/funnel', element: <FunnelPage /> },
            { path: 'sources/months', element: <CohortsPage /> },
            { path: 'sources/campaigns', element: <CampaignsPage /> },
            { path: 'sources/campaigns/:key', element: <CampaignPage /> },
            { path: 'fairness', element: <FairnessPage /> },
            { path: 'set-up', element: <Navigate to="/set-up/ready" replace /> },
            { path: 'set-up/ready', element: <ReadySetUp /> },
            { path: 'set-up/people', element: <PeopleSetUp /> },
            { path: 'set-up/people/:key', element: <PeopleSetUp /> },
            { path: 'set-up/teams', element: <TeamsSetUp /> },
            { path: 'set-up/teams/:key', element: <TeamsSetUp /> },
            { path: 'set-up/lists', element: <LabelsSetUp key="lists" kind="lists" /> },
            { path: 'set-up/tags', element: <LabelsSetUp key="tags" kind="tags" /> },
            { path: 'set-up/tokens', element: <TokensSetUp /> },
            { path: 'set-up/workspace', element: <WorkspaceSetUp /> },
            { path: 'set-up/value-sets', element: <ValueSetsSetUp /> },
            { path: 'set-up/sources', element: <SourcesSetUp /> },
            { path: 'set-up/channels', element: <ChannelsSetUp /> },
            { path: 'set-up/mail', element: <MailSetUp /> },
            { path: 'set-up/mail/:key', element: <MailSetUp /> },
            { path: 'set-up/outbox', element: <OutboxSetUp /> },
            { path: 'set-up/audit', element: <AuditSetUp /> },
            { path: 'account', element: <Account /> },
            { path: 'set-up/pipelines', element: <PipelinesSetUp /> },
            { path: 'set-up/pipelines/:key', element: <PipelinesSetUp /> },
            { path: 'set-up/fields', element: <FieldsSetUp /> },
            { path: 'set-up/fields/:record', element: <FieldsSetUp /> },
            {
              path: '*',
              element: (
                <Empty title="There is no such page">
                  Check the address, or press Ctrl+K to find what you are after.
                </Empty>
              ),
            },
          ],
        },
      ]),
    [session.data],
  );
  if (router) return <RouterProvider router={router} />;
  if (session.isPending) return null;
  const signedOut = session.error instanceof ApiError && session.error.problem.code === 'not-signed-in';
  return signedOut ? <SignIn /> : <Failed error={session.error} retry={() => void session.refetch()} />;
}

function PageFailed() {
  const error = useRouteError();
  // A page whose code cannot be fetched has no answer either; loaded again before the server answers it would be gone.
  const isCode = error instanceof TypeError && /dynamically imported module|module script failed/i.test(error.message);
  return isCode ? (
    <Failed error={noAnswer()} retry={() => void call('GET', '/session/options').then(reload, () => {})} />
  ) : (
    <Failed error={error} retry={reload} />
  );
}

function reload() {
  window.location.reload();
}
