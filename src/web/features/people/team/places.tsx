import { useRoutes } from 'react-router';
import { HandOverPage } from './hand-over-page.tsx';
import { MemberSheet } from './member-sheet.tsx';
import { TeamPage } from './team-page.tsx';

/** All pages below /team. */
export default function TeamPlaces() {
  return useRoutes([
    { path: '', element: <TeamPage />, children: [{ path: ':personId', element: <MemberSheet /> }] },
    { path: ':personId/hand-over', element: <HandOverPage /> },
  ]);
}
