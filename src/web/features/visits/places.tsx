import { useRoutes } from 'react-router';
import { LettersPage } from './letters-page.tsx';
import { VisitsPage } from './visits-page.tsx';
import { WritePage } from './write-page.tsx';

/** Visits of the coming weeks, writing their notices, and the letters that these are written from. */
export default function VisitPlaces() {
  return useRoutes([
    { path: '', element: <VisitsPage /> },
    { path: 'write', element: <WritePage /> },
    { path: 'letters', element: <LettersPage />, children: [{ path: ':letterId', element: null }] },
  ]);
}
