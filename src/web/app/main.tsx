import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Outlet, useLocation, useRouteError } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { SWRConfig } from 'swr';
import type { Problem } from '../../contract/index.ts';
import { problemOf } from '../../contract/problems.ts';
// How what was left unsent is sent, whichever page is opened.
import '../features/calls/ringing.ts';
import '../features/files/photo.ts';
import '../features/tasks/deeds.ts';
import { ProblemError } from '../kit/api.ts';
import { GoOn } from '../kit/go-on.tsx';
import { Skeleton, Trouble } from '../kit/states.tsx';
import { watchTyping } from '../kit/typing.ts';
import { Frame } from './shell/frame.tsx';
import { KeyProvider } from './shell/keys.tsx';
import { useSession } from './shell/session.ts';
import { loadSignInAgain, loadSoon, loadTaskSheet, openWithoutNet } from './shell/soon.ts';
import { useWorkspace, WorkspaceProvider } from './shell/workspace.tsx';
import '../styles.css';

const SignIn = lazy(() => import('../features/people/sign-in.tsx'));
const InterfacePage = lazy(() => import('../features/programs/interface-page.tsx'));
const AccountPage = lazy(() => import('../features/people/account-page.tsx'));
const DaySheet = lazy(() => import('../features/tasks/day/day-sheet.tsx'));
const TogetherSheet = lazy(() => import('../features/tasks/day/together-sheet.tsx'));
const TaskSheet = lazy(loadTaskSheet);
const SignInAgain = lazy(loadSignInAgain);
const Schedules = lazy(() => import('../features/schedules/list/schedules-page.tsx'));
const Worksheet = lazy(() => import('../features/schedules/worksheet/worksheet-page.tsx'));
const ScheduleBench = lazy(() => import('../features/schedules/bench/schedule-bench.tsx'));
const Templates = lazy(() => import('../features/templates/templates-page.tsx'));
const FillPlaces = lazy(() => import('../features/runs/places.tsx'));
const SetupPage = lazy(() => import('../features/setup/setup-page.tsx'));
const SettingsPage = lazy(() => import('../features/settings/places.tsx'));
const PlanPlaces = lazy(() => import('../features/plans/places.tsx'));
const CallPlaces = lazy(() => import('../features/calls/places.tsx'));
const BringInPlaces = lazy(() => import('../features/bring-in/places.tsx'));
const ClientPlaces = lazy(() => import('../features/clients/places.tsx'));
const TeamPlaces = lazy(() => import('../features/people/team/places.tsx'));
const MessagesPage = lazy(() => import('../features/messages/messages-page.tsx'));
const PostPlaces = lazy(() => import('../features/post/places.tsx'));
const ByLinkPage = lazy(() => import('../features/by-link/by-link-page.tsx'));
const NoMailsPage = lazy(() => import('../features/answers/no-mails-page.tsx'));
const LinkPage = lazy(() => import('../features/people/link-page.tsx'));
/** Where a client does what is theirs. */
const BY_LINK = '/for-you';
/** Pages for whoever is not signed in, some of them reached by a link from a mail. */
const OPEN_PAGES = {
  '/sign-in': SignIn,
  '/set-up': SetupPage,
  '/invitation': LinkPage,
  '/new-password': LinkPage,
  '/new-address': LinkPage,
  '/forgotten': LinkPage,
  [BY_LINK]: ByLinkPage,
  '/no-mails': NoMailsPage,
};
const TasksPage = lazy(() => import('../features/task-list/tasks-page.tsx'));
const VisitPlaces = lazy(() => import('../features/visits/places.tsx'));
const StartView = lazy(() => import('../features/task-list/start-view.tsx'));
const OverviewPage = lazy(() => import('../features/overview/overview-page.tsx'));
const WatchPlaces = lazy(() => import('./watch-places.tsx'));
const TemplatePage = lazy(() => import('../features/templates/template-page.tsx'));

/** Only for those who are signed in; others sign in first and come back to where they were going. */
function SignedIn() {
  const { me, hasEnded, error, retry } = useSession();
  const location = useLocation();
  if (error && me === undefined) return <Trouble error={error} retry={retry} />;
  if (me === undefined) return null;
  if (!me) return <GoOn to="/sign-in" state={{ goTo: location.pathname + location.search }} />;
  return (
    <WorkspaceProvider me={me} key={me.id}>
      <KeyProvider>
        <Frame />
        {hasEnded && (
          <Suspense fallback={null}>
            <SignInAgain me={me} />
          </Suspense>
        )}
      </KeyProvider>
    </WorkspaceProvider>
  );
}

function Page() {
  return (
    <Suspense fallback={<Skeleton rows={10} />}>
      <Outlet />
    </Suspense>
  );
}

function MyDaySheet() {
  const { me } = useWorkspace();
  const { search } = useLocation();
  return <GoOn to={`/day-sheet/${me.id}${search}`} />;
}

/** Whoever plans begins with what asks for them, everyone else with their day; unless they have chosen otherwise. */
function Home() {
  const { may, me, myWays } = useWorkspace();
  const { startsAt } = myWays;
  const addressOf = (place: string) =>
    place === 'day-sheet' || (place === 'overview' && !may('plan')) ? `/day-sheet/${me.id}` : `/${place}`;
  const usual = addressOf('overview');
  if (startsAt === null) return <GoOn to={usual} />;
  if (typeof startsAt === 'string') return <GoOn to={addressOf(startsAt)} />;
  return (
    <Suspense fallback={<Skeleton rows={10} />}>
      <StartView viewId={startsAt.view} usual={usual} />
    </Suspense>
  );
}

/** What went wrong with a page, in words: the error's own are for the console, where React has put them. */
function saidOf(error: unknown): Problem {
  if (!(error instanceof Error)) return problemOf('not-found', 'There is no page at this address.');
  const isNotLoaded = /dynamically imported module|Importing a module script failed/i.test(error.message);
  return isNotLoaded
    ? problemOf(
        'no-connection',
        'This page could not be loaded: there is no connection, or a newer version is there. What you typed is kept.',
      )
    : problemOf('broken', 'This page broke down by a fault of ours. What you typed is kept; load it again.');
}

function Lost() {
  const problem = saidOf(useRouteError());
  return (
    <div className="p-2">
      <Trouble
        error={new ProblemError(problem)}
        retry={() => (problem.status === 404 ? window.location.assign('/') : window.location.reload())}
      />
    </div>
  );
}

const router = createBrowserRouter([
  ...Object.entries(OPEN_PAGES).map(([path, Open]) => ({
    path,
    errorElement: <Lost />,
    element: (
      <Suspense fallback={null}>
        <Open />
      </Suspense>
    ),
  })),
  {
    path: '/',
    element: <SignedIn />,
    errorElement: <Lost />,
    children: [
      { index: true, element: <Home /> },
      {
        element: <Page />,
        errorElement: <Lost />,
        children: [
          { path: 'day-sheet', element: <MyDaySheet /> },
          {
            path: 'day-sheet/together',
            element: <TogetherSheet />,
            children: [{ path: 'task/:taskId', element: <TaskSheet /> }],
          },
          {
            path: 'day-sheet/:personId',
            element: <DaySheet />,
            children: [{ path: 'task/:taskId', element: <TaskSheet /> }],
          },
          { path: 'schedules', element: <Schedules />, children: [{ path: 'task/:taskId', element: <TaskSheet /> }] },
          { path: 'schedules/worksheet', element: <Worksheet /> },
          { path: 'schedules/:scheduleId', element: <ScheduleBench /> },
          { path: 'fill/*', element: <FillPlaces /> },
          { path: 'account', element: <AccountPage /> },
          { path: 'interface', element: <InterfacePage /> },
          { path: 'messages', element: <MessagesPage /> },
          { path: 'settings/*', element: <SettingsPage /> },
          { path: 'post/*', element: <PostPlaces /> },
          { path: 'calls/*', element: <CallPlaces /> },
          { path: 'clients/*', element: <ClientPlaces /> },
          { path: 'bring-in/*', element: <BringInPlaces /> },
          { path: 'plans/*', element: <PlanPlaces /> },
          { path: 'team/*', element: <TeamPlaces /> },
          { path: 'tasks/visits/*', element: <VisitPlaces /> },
          { path: 'tasks', element: <TasksPage />, children: [{ path: 'task/:taskId', element: <TaskSheet /> }] },
          { path: 'overview', element: <OverviewPage />, children: [{ path: 'task/:taskId', element: <TaskSheet /> }] },
          ...(['logbook', 'wallchart', 'workload'] as const).map((place) => ({
            path: `${place}/*`,
            element: <WatchPlaces place={place} />,
          })),
          { path: 'templates', element: <Templates /> },
          { path: 'templates/:templateId', element: <TemplatePage /> },
        ],
      },
    ],
  },
]);

// Whoever comes by a link from a mail takes nothing of the rest along: it may be a phone on a slow net.
if (window.location.pathname !== BY_LINK) {
  loadSoon();
  openWithoutNet();
}
watchTyping(document);

const root = document.getElementById('root');
if (!root) throw new Error('The page has no place to draw in.');
createRoot(root).render(
  <StrictMode>
    <SWRConfig value={{ revalidateOnFocus: true, shouldRetryOnError: true, errorRetryCount: 3, dedupingInterval: 500 }}>
      <RouterProvider router={router} />
    </SWRConfig>
  </StrictMode>,
);
