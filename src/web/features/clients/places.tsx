import { lazy } from 'react';
import { useRoutes } from 'react-router';
import { loadTaskSheet } from '../../app/shell/soon.ts';
import { AssetSheet } from './asset/asset-sheet.tsx';
import { ClientLabels, OwnLabels } from './asset/labels-sheet.tsx';
import { ClientPage } from './client/client-page.tsx';
import { ClientSheet } from './client/client-sheet.tsx';
import { MergeSheet } from './client/merge-sheet.tsx';
import { ClientsPage } from './list/clients-page.tsx';
import { OwnAssetsPage } from './list/own-assets-page.tsx';

const TaskSheet = lazy(loadTaskSheet);
const BringInPlaces = lazy(() => import('../bring-in/places.tsx'));

/** All pages below /clients. */
export default function ClientPlaces() {
  return useRoutes([
    { path: '', element: <ClientsPage />, children: [{ path: 'new', element: <ClientSheet /> }] },
    { path: 'bring-in/*', element: <BringInPlaces /> },
    {
      path: 'own',
      element: <OwnAssetsPage />,
      children: [
        { path: 'asset/:assetId', element: <AssetSheet /> },
        { path: 'labels', element: <OwnLabels /> },
      ],
    },
    {
      path: ':clientId',
      element: <ClientPage />,
      children: [
        { path: 'edit', element: <ClientSheet /> },
        { path: 'merge', element: <MergeSheet /> },
        { path: 'asset/:assetId', element: <AssetSheet /> },
        { path: 'labels', element: <ClientLabels /> },
        { path: 'task/:taskId', element: <TaskSheet /> },
      ],
    },
  ]);
}
