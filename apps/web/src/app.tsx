import { useQuery } from '@tanstack/react-query';
import { lazy, useMemo } from 'react';
import { createBrowserRouter, Navigate, RouterProvider, useRouteError } from 'react-router';
import { ApiError } from './api/client';
import { sessionQuery } from './api/queries';
import { Failed, Empty } from './components/status';
import { Frame } from './frame/frame';
import { SignIn } from './sign-in/sign-in';

const Home = lazy(() => import('./home/home').then(({ Home }) => ({ default: Home })));
const Intakes = lazy(() => import('./intakes/intakes').then(({ Intakes }) => ({ default: Intakes })));
const IntakePage = lazy(() => import('./intakes/intake-page').then(({ IntakePage }) => ({ default: IntakePage })));
const Submissions = lazy(() =>
  import('./submissions/submissions').then(({ Submissions }) => ({ default: Submissions })),
);
const Routes = lazy(() => import('./routes/routes').then(({ Routes }) => ({ default: Routes })));
const RouteSheet = lazy(() => import('./routes/route-sheet').then(({ RouteSheet }) => ({ default: RouteSheet })));
const Records = lazy(() => import('./records/records').then(({ Records }) => ({ default: Records })));
const RecordPage = lazy(() => import('./records/record-page').then(({ RecordPage }) => ({ default: RecordPage })));
const PipelinePage = lazy(() =>
  import('./pipeline/pipeline-page').then(({ PipelinePage }) => ({ default: PipelinePage })),
);

const PipelinesSetUp = lazy(() =>
  import('./set-up/pipelines-set-up').then(({ PipelinesSetUp }) => ({ default: PipelinesSetUp })),
);
const FieldsSetUp = lazy(() => import('./set-up/fields-set-up').then(({ FieldsSetUp }) => ({ default: FieldsSetUp })));

/** The whole application: sign-in for those who are not, else the frame with its pages, each loaded when first seen. */
export function App() {
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
            { path: 'submissions', element: <Submissions /> },
            { path: 'routes', element: <Routes /> },
            { path: 'routes/:id', element: <RouteSheet /> },
            { path: 'records', element: <Navigate to="/records/contacts" replace /> },
            { path: 'records/:kind', element: <Records /> },
            { path: 'records/:kind/:id', element: <RecordPage /> },
            { path: 'pipeline', element: <PipelinePage /> },
            { path: 'pipeline/:key', element: <PipelinePage /> },
            { path: 'set-up', element: <Navigate to="/set-up/pipelines" replace /> },
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
  return <Failed error={useRouteError()} retry={() => window.location.reload()} />;
}
