import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeEach, describe, expect, it } from 'vitest';
import { type PhraseTimes, parsePhrase, type Recurrence, writePhrase } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { PhraseBox } from './phrase-box.tsx';

let said: string[] = [];
let handed: (PhraseTimes | null)[] = [];
beforeEach(() => {
  said = [];
  handed = [];
});

function Box() {
  const [recurrence, put] = useState<Recurrence>(parsePhrase('every week on Mon', { start: '2026-11-24' }));
  return (
    <PhraseBox
      recurrence={recurrence}
      onChange={(next, times) => {
        handed.push(times);
        said.push(writePhrase(next, { start: 'unsaid' }));
        put(next);
      }}
    />
  );
}

const typed = async (text: string) => {
  await show(<Box />);
  const user = userEvent.setup();
  const box = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'When, in words' });
  await user.clear(box);
  await user.type(box, text);
  said = [];
  return { user, box };
};
const choices = () => screen.queryAllByRole('button').filter((button) => 'choice' in button.dataset);

describe('a phrase with a time of day', () => {
  it('hands it over beside the days, and says where it went', async () => {
    const { user, box } = await typed('weekdays at 9am, by 5pm');
    expect(said).toEqual([]);
    expect(handed.at(-1)).toEqual({ startTime: '09:00', dueTime: '17:00' });
    await user.tab();
    expect(box.value).toBe('every weekday');
    expect(screen.getByRole('status').textContent).toBe('Taken over into “Each time”: starts at 09:00, due by 17:00.');
  });
});

describe('a phrase that may mean several things', () => {
  it('is asked back with the next dates of each, and changes nothing until one is chosen', async () => {
    await typed('every second Tuesday');
    expect(choices().map((button) => button.textContent)).toEqual([
      '1every 2 weeks on Tuenext Tue 24 Nov, Tue 8 Dec and Tue 22 Dec',
      '2second Tuesday of each monthnext Tue 8 Dec, Tue 12 Jan 2027 and Tue 9 Feb 2027',
    ]);
    expect(said).toEqual([]);
  });

  it('is chosen by Alt and a figure while typing', async () => {
    const { user, box } = await typed('every second Tuesday');
    await user.keyboard('{Alt>}2{/Alt}');
    expect(said).toEqual(['second Tuesday of each month']);
    expect(box.value).toBe('second Tuesday of each month');
    expect(choices()).toEqual([]);
  });

  it('is chosen by a figure alone once the keyboard has gone to the list, or by a press', async () => {
    const { user, box } = await typed('bimonthly');
    await user.keyboard('{Enter}');
    expect(document.activeElement).toBe(choices()[0]);
    await user.keyboard('2');
    expect(said).toEqual(['1st and 15th of each month']);
    expect(document.activeElement).toBe(box);
    await user.clear(box);
    await user.type(box, 'monthly on Fridays');
    await user.click(screen.getByRole('button', { name: /last Friday of each month/ }));
    expect(said.at(-1)).toBe('last Friday of each month');
  });

  it('that contradicts itself is not chosen from: it says why', async () => {
    const { user } = await typed('once a month on the 1st and 15th');
    await user.tab();
    expect(choices()).toEqual([]);
    expect(screen.getByText(/^Once, and 2 days/)).toBeTruthy();
  });
});
