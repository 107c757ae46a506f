import { act, fireEvent, type RenderResult, render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { SWRConfig, useSWRConfig } from 'swr';
import { vi } from 'vitest';
import type { Person, Workspace } from '../../contract/index.ts';
import type { Problem } from '../../contract/problems.ts';
import { NO_VISITS, USUAL_ASKING, USUAL_OUTCOMES, USUAL_WAYS } from '../../core/index.ts';
import { KeyProvider } from '../app/shell/keys.tsx';
import { WorkspaceProvider } from '../app/shell/workspace.tsx';

export const INES: Person = {
  id: '01937000-0000-7000-8000-0000000000a1',
  name: 'Ines Calloway',
  roles: ['Marina manager'],
  team: null,
  access: 'manager',
  worksFrom: null,
  worksUntil: null,
};
export const NADIA: Person = {
  id: '01937000-0000-7000-8000-0000000000a2',
  name: 'Nadia Orme',
  roles: ['Dockhand'],
  team: null,
  access: 'member',
  worksFrom: null,
  worksUntil: null,
};

/** Tern Quay on Tuesday 24 November 2026, 10:40, with what a test says otherwise. */
export function workspaceOf(other: Partial<Workspace> = {}): Workspace {
  return {
    id: '01937000-0000-7000-8000-000000000001',
    name: 'Tern Quay',
    zone: 'Europe/London',
    now: '2026-11-24T10:40',
    clockStands: true,
    horizonDays: 14,
    yearStarts: 1,
    phraseHabits: {},
    seasons: [],
    ways: USUAL_WAYS,
    myWays: { weekStarts: null, dateOrder: null, clock: null, startsAt: null },
    makeTime: '03:00',
    calendar: { workingWeekdays: [1, 2, 3, 4, 5], holidays: [{ date: '2026-12-25', name: 'Christmas Day' }] },
    categories: [],
    workTypes: [],
    visits: NO_VISITS,
    asking: USUAL_ASKING,
    outcomes: [...USUAL_OUTCOMES],
    rings: false,
    clientFields: [],
    weekMinutes: [450, 450, 450, 450, 450, 0, 0],
    skipReasons: [],
    assetFields: [],
    roles: [],
    teams: [],
    tickets: [],
    people: [INES, NADIA],
    trouble: null,
    ...other,
  };
}

interface Around {
  readonly me?: Person;
  readonly workspace?: Partial<Workspace>;
  /** Where it is opened. */
  readonly path?: string;
  /**
   * What the server answers, by address without `/api`, with the method before it where that is not GET: a value, what a
   * function makes of what was sent (a response as it is), or an error where nothing gets through. Anything else that is asked fails the test.
   */
  readonly answers?: Readonly<Record<string, unknown>>;
}

let mutateShown: ReturnType<typeof useSWRConfig>['mutate'] | null = null;
function Mutates() {
  mutateShown = useSWRConfig().mutate;
  return null;
}

/** Asks the server once more for all that is shown, as news does. */
export const askAgain = () => act(() => mutateShown?.(() => true));

/** Draws a part as it stands in the application: somebody is signed in, and the server answers what the test says. */
export async function show(part: ReactNode, { me = INES, workspace, path = '/', answers = {} }: Around = {}) {
  const known: Readonly<Record<string, unknown>> = {
    '/workspace': workspaceOf(workspace),
    '/subjects?q=': { subjects: [], isMore: false },
    ...answers,
  };
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (address, { method = 'GET', body } = {}) => {
    const path = String(address).replace(/^\/api/, '');
    const foreseen = known[method === 'GET' ? path : `${method} ${path}`];
    if (foreseen === undefined) throw new Error(`${method} ${path} is not foreseen by this test.`);
    if (foreseen instanceof Error) throw foreseen;
    const sent: unknown = typeof body === 'string' ? JSON.parse(body) : undefined;
    const answer: unknown = typeof foreseen === 'function' ? await foreseen(sent) : foreseen;
    if (answer instanceof Response) return answer;
    return new Response(JSON.stringify(answer), { headers: { 'Content-Type': 'application/json' } });
  });
  const around = (inner: ReactNode) => (
    <MemoryRouter initialEntries={[path]}>
      <SWRConfig value={{ provider: () => new Map(), shouldRetryOnError: false }}>
        <Mutates />
        <WorkspaceProvider me={me}>
          <KeyProvider>
            <main tabIndex={-1}>{inner}</main>
          </KeyProvider>
        </WorkspaceProvider>
      </SWRConfig>
    </MemoryRouter>
  );
  const shown: RenderResult = render(around(part));
  await shown.findByRole('main');
  return { ...shown, show: (next: ReactNode) => shown.rerender(around(next)) };
}

/** As the server refuses: with its reason, under the status of that. */
export const refusalOf = (problem: Problem): Response =>
  new Response(JSON.stringify(problem), { status: problem.status });

/** Writes something else into a blank and goes on to what comes after it: only then is it read. */
export function write(label: string, text: string): void {
  const field = screen.getByLabelText(label);
  fireEvent.focus(field);
  fireEvent.change(field, { target: { value: text } });
  fireEvent.blur(field);
}
