import { lazy } from 'react';
import { useRoutes } from 'react-router';
import { PlanPage } from './plan-page.tsx';
import { PlansPage } from './plans-page.tsx';
import { RollingPage } from './rolling-page.tsx';

const PutOnPage = lazy(() => import('./put-on/put-on-page.tsx'));

/** Service plans: all of them, one with its items and who is on it, and putting clients on one. */
export default function PlanPlaces() {
  return useRoutes([
    { path: '', element: <PlansPage /> },
    { path: 'put-on', element: <PutOnPage /> },
    { path: 'rolling', element: <RollingPage /> },
    { path: ':planId', element: <PlanPage /> },
  ]);
}
