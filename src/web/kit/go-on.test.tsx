import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { lazy, Suspense, useState } from 'react';
import { createBrowserRouter, Link, Outlet, RouterProvider } from 'react-router';
import { afterEach, expect, test } from 'vitest';
import { GoOn } from './go-on.tsx';

const before = window.location.pathname;
afterEach(() => window.history.replaceState(null, '', before));

test('whoever is on the way elsewhere when it is known where to begin stays on it', async () => {
  window.history.replaceState(null, '', '/');
  let load = (_: { default: () => React.JSX.Element }) => {};
  const Tasks = lazy(
    () =>
      new Promise<{ default: () => React.JSX.Element }>((resolve) => {
        load = resolve;
      }),
  );
  function Home() {
    const [isKnown, setKnown] = useState(false);
    return isKnown ? (
      <GoOn to="/overview" />
    ) : (
      <button type="button" onClick={() => setKnown(true)}>
        It is known
      </button>
    );
  }
  const router = createBrowserRouter([
    {
      path: '/',
      element: (
        <>
          <Link to="/tasks">Tasks</Link>
          <Suspense fallback={null}>
            <Outlet />
          </Suspense>
        </>
      ),
      children: [
        { index: true, element: <Home /> },
        { path: 'tasks', element: <Tasks /> },
        { path: 'overview', element: <p>All of overview</p> },
      ],
    },
  ]);
  render(<RouterProvider router={router} />);
  const known = screen.getByRole('button', { name: 'It is known' });
  await userEvent.click(screen.getByRole('link', { name: 'Tasks' }));
  expect(window.location.pathname).toBe('/tasks');
  expect(known.isConnected).toBe(true);
  await userEvent.click(known);
  await act(async () => load({ default: () => <p>All of tasks</p> }));
  await screen.findByText('All of tasks');
  expect(window.location.pathname).toBe('/tasks');
});

test('whoever stays is taken on', async () => {
  window.history.replaceState(null, '', '/');
  const router = createBrowserRouter([
    { path: '/', element: <GoOn to="/overview?of=today" /> },
    { path: '/overview', element: <p>All of overview</p> },
  ]);
  render(<RouterProvider router={router} />);
  await screen.findByText('All of overview');
  expect(window.location.search).toBe('?of=today');
});
