import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Lists, ListsInput } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { USUAL_OUTCOMES } from '../../../core/index.ts';
import { INES, NADIA, refusalOf, show, write } from '../../testing/show.tsx';
import { ListsPage } from './lists-page.tsx';

const LISTS: Lists = {
  version: 3,
  roles: [
    { name: 'Dockhand', count: 2 },
    { name: 'Rigger', count: 0 },
  ],
  teams: [{ name: 'Yard', count: 1 }],
  tickets: [{ name: 'Travel lift', count: 1, asked: 2 }],
  skipReasons: ['Bad weather'],
  outcomes: [...USUAL_OUTCOMES],
  clientFields: [{ key: 'berth', name: 'Berth', kind: 'text', choices: [], count: 12 }],
  assetFields: [{ key: 'hull', name: 'Hull', kind: 'choice', choices: ['steel', 'wood'], count: 0 }],
};

/** The page of lists, and what was sent of it. */
async function lists(answer: unknown = undefined) {
  const sent: ListsInput[] = [];
  await show(<ListsPage />, {
    me: INES,
    answers: {
      '/settings/lists': LISTS,
      '/settings/history': { entries: [] },
      'PUT /settings/lists': (body: ListsInput) => {
        sent.push(body);
        return answer ?? { lists: { ...LISTS, version: 4 }, changeId: null };
      },
    },
  });
  await screen.findByRole('heading', { level: 1, name: 'Lists' });
  const part = (name: string) => within(screen.getByRole('region', { name }));
  return { sent, part, user: userEvent.setup() };
}
const save = () => screen.getByRole('button', { name: 'Save' });

beforeEach(() => sessionStorage.clear());

describe('the lists that everybody chooses from', () => {
  it('are a manager’s', async () => {
    await show(<ListsPage />, { me: NADIA });
    expect(screen.getByText(/Only a manager/)).toBeTruthy();
  });

  it('say how many have each name, and save nothing before something is changed', async () => {
    const { part } = await lists();
    expect(part('Roles').getByText('2 people')).toBeTruthy();
    expect(part('Roles').getByText('nobody')).toBeTruthy();
    expect(part('Tickets').getByText('1 person, 2 templates')).toBeTruthy();
    expect(part('Fields of clients').getByText('12 clients')).toBeTruthy();
    expect(save()).toHaveProperty('disabled', true);
    expect(screen.queryByRole('button', { name: 'Put back' })).toBeNull();
  });

  it('are saved with what each name was before, those that are new without, those taken out not at all', async () => {
    const { sent, part, user } = await lists();
    write('Roles, 1', ' Deckhand ');
    await user.click(part('Roles').getByRole('button', { name: 'Take Rigger out' }));
    await user.click(part('Teams').getByRole('button', { name: 'Add a team' }));
    write('Teams, 2', 'Office');
    await user.click(part('Reasons for skipping').getByRole('button', { name: 'Add a reason' }));
    write('Reasons for skipping, 2', 'No parts');
    await user.click(save());
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]).toMatchObject({
      version: 3,
      roles: [{ was: 'Dockhand', name: 'Deckhand' }],
      teams: [
        { was: 'Yard', name: 'Yard' },
        { was: null, name: 'Office' },
      ],
      skipReasons: ['Bad weather', 'No parts'],
      clientFields: [{ key: 'berth', name: 'Berth', kind: 'text', choices: [] }],
    });
  });

  it('are not saved with a name twice, with none, or a choice of nothing; each is told where it stands', async () => {
    const { sent, part, user } = await lists();
    write('Roles, 2', 'dockhand');
    expect(part('Roles').getByText(/stands there twice/)).toBeTruthy();
    await user.click(part('Teams').getByRole('button', { name: 'Add a team' }));
    expect(part('Teams').getByText(/The team/)).toBeTruthy();
    write('What Hull may be', ' , ');
    expect(part('Fields of assets').getByText('Say what may be chosen, with commas between.')).toBeTruthy();
    await user.click(save());
    expect(sent).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Put back' }));
    expect(screen.queryByText(/stands there twice/)).toBeNull();
    expect(screen.getByLabelText('What Hull may be')).toHaveProperty('value', 'steel, wood');
  });

  it('keep fields of their own: what a field may be is read by its commas, and what one that goes had is told', async () => {
    const { sent, part, user } = await lists();
    write('What Hull may be', 'steel, wood, wood , glass');
    await user.click(part('Fields of clients').getByRole('button', { name: 'Take Berth out' }));
    expect(
      part('Fields of clients').getByText(/^“Berth” is filled in with 12 clients: it is shown no more/),
    ).toBeTruthy();
    await user.click(part('Fields of clients').getByRole('button', { name: 'Add a field' }));
    write('Fields of clients, 1', 'Insured until');
    await user.selectOptions(screen.getByLabelText('What Insured until is'), 'a date');
    await user.click(save());
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]?.assetFields).toEqual([
      { key: 'hull', name: 'Hull', kind: 'choice', choices: ['steel', 'wood', 'glass'] },
    ]);
    expect(sent[0]?.clientFields).toEqual([{ key: '', name: 'Insured until', kind: 'date', choices: [] }]);
  });

  it('stay as they were typed over a page that is opened again, what is not whole yet as well', async () => {
    const { part, user } = await lists();
    write('Roles, 1', 'Deckhand');
    await user.click(part('Teams').getByRole('button', { name: 'Add a team' }));
    cleanup();
    await lists();
    expect(screen.getByLabelText('Roles, 1')).toHaveProperty('value', 'Deckhand');
    expect(screen.getByLabelText('Teams, 2')).toHaveProperty('value', '');
    expect(screen.getByText('Not saved.')).toBeTruthy();
  });

  it('say why they are refused, and lose nothing by it', async () => {
    const problem = problemOf('invalid', 'Somebody holds that ticket.');
    const { user } = await lists(refusalOf(problem));
    write('Tickets, 1', 'Boat lift');
    await user.click(save());
    expect(await screen.findByText('Somebody holds that ticket.', { selector: '[role=status]' })).toBeTruthy();
    expect(screen.getByLabelText('Tickets, 1')).toHaveProperty('value', 'Boat lift');
  });
});
