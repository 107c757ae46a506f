import { lazy } from 'react';
import { useRoutes } from 'react-router';
import { loadTaskSheet } from './shell/soon.ts';

const TaskSheet = lazy(loadTaskSheet);
const LogbookPage = lazy(() => import('../features/logbook/logbook-page.tsx'));
const WallchartPage = lazy(() => import('../features/wallchart/wallchart-page.tsx'));
const WorkloadPage = lazy(() => import('../features/workload/workload-page.tsx'));

const PAGES = { logbook: <LogbookPage />, wallchart: <WallchartPage />, workload: <WorkloadPage /> } as const;

/** Places to watch from that nobody begins with: their ways stand apart, so that the first page is small. */
export default function WatchPlaces({ place }: { readonly place: keyof typeof PAGES }) {
  return useRoutes([{ path: '', element: PAGES[place], children: [{ path: 'task/:taskId', element: <TaskSheet /> }] }]);
}
