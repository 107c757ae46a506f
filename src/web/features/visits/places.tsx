import { lazy } from 'react';
import { useRoutes } from 'react-router';
import { loadTaskSheet } from '../../app/shell/soon.ts';
import { LettersPage } from './letters-page.tsx';
import { VisitsPage } from './visits-page.tsx';
import { WritePage } from './write-page.tsx';

const TaskSheet = lazy(loadTaskSheet);

/** Visits of the coming weeks, writing their notices, and the letters that these are written from. */
export default function VisitPlaces() {
  return useRoutes([
    { path: '', element: <VisitsPage />, children: [{ path: 'task/:taskId', element: <TaskSheet /> }] },
    { path: 'write', element: <WritePage /> },
    { path: 'letters', element: <LettersPage />, children: [{ path: ':letterId', element: null }] },
  ]);
}
