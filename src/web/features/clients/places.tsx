import { lazy } from 'react';
import { useLocation, useRoutes } from 'react-router';
import { loadTaskSheet } from '../../app/shell/soon.ts';
import { GoOn } from '../../kit/go-on.tsx';
import { AssetSheet } from './asset/asset-sheet.tsx';
import { ClientLabels, OwnLabels } from './asset/labels-sheet.tsx';
import { ClientPage } from './client/client-page.tsx';
import { ClientSheet } from './client/client-sheet.tsx';
import { MergeSheet } from './client/merge-sheet.tsx';
import { ClientsPage } from './list/clients-page.tsx';
import { OwnAssetsPage } from './list/own-assets-page.tsx';

const TaskSheet = lazy(loadTaskSheet);

function BroughtInBefore() {
  const { pathname, search } = useLocation();
  return <GoOn to={`${pathname.replace('/clients', '')}${search}`} />;
}

/** All pages below /clients. */
export default function ClientPlaces() {
  return useRoutes([
    { path: '', element: <ClientsPage />, children: [{ path: 'new', element: <ClientSheet /> }] },
    // Where lists were brought in before: earlier messages lead there.
    { path: 'bring-in/*', element: <BroughtInBefore /> },
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
