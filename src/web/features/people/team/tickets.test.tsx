import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { Member, PersonInput } from '../../../../contract/index.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import { TicketsAsked } from '../../templates/tickets-asked.tsx';
import { TicketsBlank } from './tickets-blank.tsx';
import { TicketsEnding } from './tickets-ending.tsx';

type Tickets = PersonInput['tickets'];

async function written(held: Tickets) {
  const now = { held };
  function Form() {
    const [tickets, setTickets] = useState(held);
    now.held = tickets;
    return <TicketsBlank held={tickets} known={['radio', 'first aid']} onChange={setTickets} />;
  }
  await show(<Form />);
  return { now, user: userEvent.setup() };
}

describe('tickets of a person', () => {
  it('are added by name, known or new, given a last day, and taken out', async () => {
    const { now, user } = await written([]);
    const another = () => screen.getByRole('combobox', { name: 'Another ticket' });
    // As it is written here already, where it differs by capitals alone.
    await user.type(another(), 'Radio{Enter}');
    await user.type(another(), 'winch{Enter}');
    expect(now.held).toEqual([
      { name: 'radio', until: null },
      { name: 'winch', until: null },
    ]);
    await user.type(screen.getByRole('textbox', { name: 'Last day of radio' }), '31 Jan 2027{Enter}');
    expect(now.held[0]).toEqual({ name: 'radio', until: '2027-01-31' });
    await user.type(screen.getByRole('textbox', { name: 'Last day of winch' }), 'some day');
    await user.tab();
    expect(screen.getByRole('alert').textContent).toBe('a date, like 1 Feb 2027');
    expect(now.held[1]).toEqual({ name: 'winch', until: null });
    await user.click(screen.getByRole('button', { name: 'Take out radio' }));
    expect(now.held.map(({ name }) => name)).toEqual(['winch']);
  });

  it('are not held twice', async () => {
    const { now, user } = await written([{ name: 'radio', until: '2027-01-31' }]);
    await user.type(screen.getByRole('combobox', { name: 'Another ticket' }), 'radio{Enter}');
    expect(now.held).toEqual([{ name: 'radio', until: '2027-01-31' }]);
  });

  it('that end within weeks, or have ended, are told soonest first, and those that last are not', async () => {
    const member = (name: string, tickets: Tickets) => ({ id: name, name, tickets }) as unknown as Member;
    const until = (...days: (string | null)[]) => days.map((day, i) => ({ name: `ticket ${i + 1}`, until: day }));
    await show(
      <TicketsEnding
        members={[
          member('Ada', until('2027-01-19', '2027-01-20', null)),
          member('Ben', until('2026-11-23')),
          member('Cy', until('2026-11-24')),
        ]}
      />,
    );
    const said = screen.getAllByRole('paragraph').map(({ textContent }) => textContent);
    expect(said).toEqual([
      'Benticket 1ended Mon 23 Nov: nothing that asks for it is given any more',
      'Cyticket 1ends today',
      'Adaticket 1until Tue 19 Jan 2027, 56 days from now',
    ]);
    expect(screen.getByRole('heading').textContent).toContain('3tickets end');
  });
});

describe('tickets that work asks for', () => {
  const colleague = (id: string, tickets: Tickets) => ({
    ...{
      id,
      roles: [],
      team: null,
      weeks: [[450, 450, 450, 450, 450, 0, 0]],
      weeksFrom: '2026-11-23',
      ...{ shifts: [], shiftChanges: [] },
      worksFrom: null,
    },
    ...{ worksUntil: null, leave: [], tickets, deputyId: null },
  });
  const asked = async (tickets: readonly string[]) => {
    const colleagues = [
      colleague(INES.id, [{ name: 'radio', until: null }]),
      colleague(NADIA.id, [
        { name: 'radio', until: '2026-11-24' },
        { name: 'crane', until: '2026-11-23' },
      ]),
    ];
    const around = { '/colleagues': { colleagues, weeks: [] } };
    await show(<TicketsAsked tickets={tickets} personId={NADIA.id} onChange={() => undefined} />, { answers: around });
    return (await screen.findByRole('status')).textContent;
  };

  it('say how many hold them today, all of them where there are several', async () => {
    expect(await asked(['radio'])).toBe('2 people hold it today; no schedule gives it to anybody else.');
  });
  it('say where nobody does', async () => {
    expect(await asked(['radio', 'crane'])).toBe(
      'Nobody here holds all of them today: it would be given to nobody.Nadia Orme does not hold all of them.',
    );
  });
  it('are none where none is asked for', async () => {
    const { container } = await show(<TicketsAsked tickets={[]} personId={null} onChange={() => undefined} />);
    expect(within(container).queryByRole('status')).toBeNull();
  });
});
