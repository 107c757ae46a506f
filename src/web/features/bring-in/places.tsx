import { useRoutes } from 'react-router';
import { BringInPage } from './bring-in-page.tsx';
import { StartPage } from './start-page.tsx';

/** All pages below /bring-in. */
export default function BringInPlaces() {
  return useRoutes([
    { path: '', element: <StartPage /> },
    { path: ':bringInId', element: <BringInPage /> },
  ]);
}
