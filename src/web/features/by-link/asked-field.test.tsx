import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import type { LinkedTask } from '../../../contract/index.ts';
import { type Demand, type DemandKind, dayOfIso } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import { AskedField } from './asked-field.tsx';
import { askedItems } from './asked-items.ts';
import { KeptWriting, type Writing } from './kept-writing.ts';

const TODAY = dayOfIso('2026-11-24');
const base = { key: 'k', label: 'Of the mooring' };
const DEMANDS: Readonly<Record<Exclude<DemandKind, 'file'>, Demand>> = {
  note: { ...base, kind: 'note' },
  yesNo: { ...base, kind: 'yesNo' },
  date: { ...base, kind: 'date' },
  text: { ...base, kind: 'text' },
  longText: { ...base, kind: 'longText' },
  tag: { ...base, kind: 'tag' },
  number: { ...base, kind: 'number', unit: 'Ω', least: 0.2, most: 5 },
  choice: { ...base, kind: 'choice', options: ['sound', 'worn'] },
  choices: { ...base, kind: 'choices', options: ['bow', 'stern', 'spring', 'breast'] },
};

const taskOf = (demand: Demand, of: Partial<LinkedTask> = {}): LinkedTask => ({
  ...{ id: 'task', version: 1, title: 'Moorings', about: 'Grey Wagtail', dueOn: '2026-12-04', dueTime: null },
  ...{ state: 'open', estimateMinutes: 5, instructions: '', brief: '', links: [], templateFiles: [], files: [] },
  ...{ demands: [demand], steps: [], answers: {}, note: '', sentBack: null, doneAt: null, looksAtIt: 'Oskar' },
  ...{ nextOn: null, ...of },
});

/** The field of one thing asked, as it stands on the page of a link; what it sends, and what is kept here. */
async function field(demand: Demand, of: Partial<LinkedTask> = {}) {
  let task = taskOf(demand, of);
  const sent: [string, Writing['value'], string][] = [];
  const writing = new KeptWriting('asked-field-test', async (name, { text, value, remark }) => {
    sent.push([name, value, remark]);
    const { [name]: _, ...others } = task.answers;
    const at = '2026-11-24T10:40';
    if (name === 'note') task = { ...task, note: text };
    else if (value === null) task = { ...task, answers: others };
    else
      task = {
        ...task,
        answers: { ...others, [name]: { value: typeof value === 'object' ? [...value] : value, remark, at, by: null } },
      };
    return '';
  });
  const [item] = askedItems(task);
  if (!item) throw new Error('Nothing is asked.');
  const drawn = () => (
    <AskedField {...{ item, task, writing, today: TODAY }} here={writing.snapshot()} onTask={() => undefined} />
  );
  const shown = await show(drawn());
  writing.subscribe(() => shown.show(drawn()));
  return { sent, writing, user: userEvent.setup() };
}

/** As the server has it, of somebody who answered before. */
const given = (value: string | number | boolean | string[], remark = ''): Partial<LinkedTask> => ({
  answers: { k: { value, remark, at: '2026-11-20T09:00', by: null } },
});

beforeEach(() => localStorage.clear());

describe('what is asked behind a link', () => {
  it.each(Object.values(DEMANDS))('is named, empty at first, where it is of the kind $kind', async (demand) => {
    const { sent, writing } = await field(demand);
    expect(screen.getAllByText('Of the mooring').length).toBe(1);
    expect(screen.queryAllByRole('alert')).toEqual([]);
    for (const pressed of screen.queryAllByRole('button', { pressed: true })) throw new Error(pressed.outerHTML);
    for (const box of screen.queryAllByRole('checkbox')) expect(box).toHaveProperty('checked', false);
    for (const words of screen.queryAllByRole('textbox')) expect(words).toHaveProperty('value', '');
    expect([sent, writing.snapshot()]).toEqual([[], {}]);
  });

  it('is yes or no, and nothing again by a second press', async () => {
    const { sent, writing, user } = await field(DEMANDS.yesNo, given(false));
    const [no, yes] = [screen.getByRole('button', { name: 'No' }), screen.getByRole('button', { name: 'Yes' })];
    expect(no.getAttribute('aria-pressed')).toBe('true');
    await user.click(yes);
    await writing.sendAll();
    expect([no, yes].map((one) => one.getAttribute('aria-pressed'))).toEqual(['false', 'true']);
    await user.click(yes);
    await writing.sendAll();
    expect([no, yes].map((one) => one.getAttribute('aria-pressed'))).toEqual(['false', 'false']);
    expect(sent).toEqual([
      ['k', true, ''],
      ['k', null, ''],
    ]);
  });

  it('is one of several', async () => {
    const { sent, writing, user } = await field(DEMANDS.choice);
    await user.click(screen.getByRole('button', { name: 'worn' }));
    expect(screen.getByRole('button', { name: 'worn' }).getAttribute('aria-pressed')).toBe('true');
    await writing.sendAll();
    expect(sent).toEqual([['k', 'worn', '']]);
  });

  it('is some of several, in the order in which they are asked, however they are ticked', async () => {
    const { sent, writing, user } = await field(DEMANDS.choices, given(['spring']));
    await user.click(screen.getByRole('checkbox', { name: 'bow' }));
    expect(writing.snapshot()['k']?.value).toEqual(['bow', 'spring']);
    await writing.sendAll();
    for (const name of ['spring', 'bow']) await user.click(screen.getByRole('checkbox', { name }));
    await writing.sendAll();
    expect(sent).toEqual([
      ['k', ['bow', 'spring'], ''],
      ['k', null, ''],
    ]);
  });

  it('is a figure: what is none is kept and not sent, what lies outside its limits asks why', async () => {
    const { sent, writing, user } = await field(DEMANDS.number);
    const figure = screen.getByLabelText('Of the mooring');
    expect(screen.getByText('usually 0.2 to 5')).toBeTruthy();
    await user.type(figure, 'much');
    expect(screen.getByText('write a figure, like 0.41')).toBeTruthy();
    expect(figure.getAttribute('aria-invalid')).toBe('true');
    await writing.sendAll();
    expect([sent, writing.snapshot()['k']?.state]).toEqual([[], 'unread']);
    await user.clear(figure);
    expect(writing.snapshot()).toEqual({});
    fireEvent.change(figure, { target: { value: '7,5' } });
    fireEvent.change(screen.getByLabelText(/Say why that is\./), { target: { value: 'new chain' } });
    await writing.sendAll();
    expect(sent).toEqual([['k', 7.5, 'new chain']]);
  });

  it('is a figure that was given before, with why it lies outside', async () => {
    await field(DEMANDS.number, given(0.1, 'at low water'));
    expect(screen.getByLabelText('Of the mooring')).toHaveProperty('value', '0.1');
    expect(screen.getByLabelText(/Say why that is\./)).toHaveProperty('value', 'at low water');
  });

  it('is a date in words, read beside it and written out where it is left, or one of the calendar', async () => {
    const { sent, writing, user } = await field(DEMANDS.date);
    const date = screen.getByLabelText('Of the mooring');
    await user.type(date, '4 dec 2027');
    expect(screen.getByText(/^in (a year|\d+ months)$/)).toBeTruthy();
    await user.tab();
    expect(date).toHaveProperty('value', 'Sat 4 Dec 2027');
    await writing.sendAll();
    expect(sent.at(-1)).toEqual(['k', '2027-12-04', '']);
    const calendar = document.querySelector('input[type=date]');
    if (!calendar) throw new Error('There is no calendar.');
    fireEvent.change(calendar, { target: { value: '2027-12-05' } });
    await writing.sendAll();
    expect(sent.at(-1)).toEqual(['k', '2027-12-05', '']);
  });

  it.each(['text', 'tag', 'longText'] as const)('is words (%s), without what stands around them', async (kind) => {
    const { sent, writing, user } = await field(DEMANDS[kind], given('of old'));
    const words = screen.getByLabelText('Of the mooring');
    expect([words.tagName, (words as HTMLInputElement).value]).toEqual([
      kind === 'longText' ? 'TEXTAREA' : 'INPUT',
      'of old',
    ]);
    await user.type(words, ' and new ');
    await writing.sendAll();
    await user.clear(words);
    await writing.sendAll();
    expect(sent).toEqual([
      ['k', 'of old and new', ''],
      ['k', null, ''],
    ]);
  });

  it('is the note of the task, under a name of its own and with what stood there when it was begun', async () => {
    const { sent, writing, user } = await field(DEMANDS.note, { note: 'Chafed.' });
    await user.type(screen.getByLabelText('Of the mooring'), ' Renewed.');
    expect(writing.snapshot()['note']).toMatchObject({ text: 'Chafed. Renewed.', was: 'Chafed.' });
    await writing.sendAll();
    expect(sent).toEqual([['note', true, '']]);
  });

  it('is ticked where a step asks for nothing else', async () => {
    const task = taskOf(DEMANDS.note, {
      demands: [],
      steps: [{ key: 'read', text: 'The rules are read', note: 'All four', demands: [], isTicked: true }],
    });
    const writing = new KeptWriting('asked-field-test', async () => '');
    const [item] = askedItems(task);
    if (!item) throw new Error('Nothing is asked.');
    await show(<AskedField {...{ item, task, writing, today: TODAY }} here={{}} onTask={() => undefined} />);
    const tick = screen.getByRole('checkbox', { name: /The rules are read/ });
    expect(tick).toHaveProperty('checked', true);
    fireEvent.click(tick);
    expect(writing.snapshot()['tick read']).toMatchObject({ value: false });
  });
});
