import { screen } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import { expect, it } from 'vitest';
import type { TaskView } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import StartView from './start-view.tsx';

const LATE: TaskView = {
  ...{ id: '01937000-0000-7000-8000-0000000000b1', version: 3, name: 'Late', by: null, order: 'latest' },
  ...{ filter: { are: 'late' }, columns: null, isShared: true, sharedBy: 'Bram Hollis', count: 3, late: 3 },
};

function Where() {
  const { pathname, search } = useLocation();
  return <p>{pathname + search}</p>;
}
const begin = (viewId: string, views: unknown) =>
  show(
    <Routes>
      <Route path="/" element={<StartView viewId={viewId} usual="/overview" />} />
      <Route path="*" element={<Where />} />
    </Routes>,
    { answers: { '/task-list/views': views } },
  );

it.each([
  ['a view that is kept', LATE.id, { views: [LATE] }, /^\/tasks\?.*are=late.*view=01937000/],
  ['the usual place, for one that is kept no longer', 'gone', { views: [LATE] }, /^\/overview$/],
  ['the usual place, where views can’t be had', LATE.id, new TypeError('no net'), /^\/overview$/],
])('begins with %s', async (_, viewId, views, where) => {
  await begin(viewId, views);
  expect((await screen.findByText(where)).textContent).toMatch(where);
});
