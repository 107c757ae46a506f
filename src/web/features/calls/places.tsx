import { lazy } from 'react';
import { useRoutes } from 'react-router';
import { CallsPage } from './calls-page.tsx';

const QuotasPage = lazy(() => import('./quotas-page.tsx'));
const CallFiguresPage = lazy(() => import('./call-figures-page.tsx'));
const QuotaPage = lazy(() => import('./quota-page.tsx'));

/** The calls of a day, and the quotas that their lists are made from. */
export default function CallPlaces() {
  return useRoutes([
    { path: '', element: <CallsPage /> },
    { path: 'quotas', element: <QuotasPage /> },
    { path: 'quotas/:quotaId', element: <QuotaPage /> },
    { path: 'figures', element: <CallFiguresPage /> },
    { path: 'of/:personId', element: <CallsPage /> },
  ]);
}
