import { useRoutes } from 'react-router';
import FillPage from './fill-page.tsx';
import RunSheet from './run-sheet.tsx';

/** All pages below /fill. */
export default function FillPlaces() {
  return useRoutes([{ path: '', element: <FillPage />, children: [{ path: 'run/:runId', element: <RunSheet /> }] }]);
}
