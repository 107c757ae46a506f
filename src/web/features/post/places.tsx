import { useRoutes } from 'react-router';
import MailSheet from './mail-sheet.tsx';
import PostPage from './post-page.tsx';

/** All pages below /post. */
export default function PostPlaces() {
  return useRoutes([{ path: '', element: <PostPage />, children: [{ path: ':mailId', element: <MailSheet /> }] }]);
}
