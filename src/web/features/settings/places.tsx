import { useRoutes } from 'react-router';
import { BackupsPage } from './backups-page.tsx';
import { ListsPage } from './lists-page.tsx';
import { SettingsPage } from './settings-page.tsx';
import { WebhooksPage } from './webhooks-page.tsx';

/** All pages below /settings. */
export default function SettingsPlaces() {
  return useRoutes([
    { path: '', element: <SettingsPage /> },
    { path: 'backups', element: <BackupsPage /> },
    { path: 'webhooks', element: <WebhooksPage /> },
    { path: 'lists', element: <ListsPage /> },
  ]);
}
