import 'fake-indexeddb/auto';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LinkedTask, OpenedLink } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { USUAL_WAYS } from '../../../core/index.ts';
import { refusalOf, show } from '../../testing/show.tsx';
import { askedItems, missingItems, sayMissingItems } from './asked-items.ts';
import ByLinkPage from './by-link-page.tsx';
import { KeptFiles } from './kept-files.ts';
import { placeOf } from './link-api.ts';

const ID = '01937000-0000-7000-8000-0000000000c1';
const OTHER = '01937000-0000-7000-8000-0000000000c2';

const taskOf = (of: Partial<LinkedTask> = {}): LinkedTask => ({
  ...{
    id: ID,
    version: 1,
    title: 'Certificate',
    about: 'Grey Wagtail, berth A 12',
    dueOn: '2026-12-04',
    dueTime: null,
  },
  ...{ state: 'open', estimateMinutes: 5, instructions: '', brief: '', links: [], templateFiles: [], files: [] },
  demands: [
    { key: 'paper', label: 'The certificate', kind: 'file' },
    { key: 'until', label: 'Last day it covers', kind: 'date' },
    { key: 'feet', label: 'Length', kind: 'number', unit: 'm', least: 2, most: 15 },
  ],
  steps: [{ key: 'read', text: 'The rules are read', note: '', demands: [], isTicked: false }],
  ...{ answers: {}, note: '', sentBack: null, doneAt: null, looksAtIt: 'Oskar', nextOn: null },
  ...of,
});
const opened = (tasks: readonly LinkedTask[], of: Partial<Extract<OpenedLink, { kind: 'open' }>> = {}): OpenedLink => ({
  ...{ kind: 'open', workspace: 'Tern Quay', today: '2026-11-24', ways: USUAL_WAYS, contact: 'Quentin Brindle' },
  ...{ email: 'q@brindle.example', worksUntil: '2026-12-11' },
  ring: { name: 'Rhona', telephone: '01632 960 118', answered: 'weekdays 09:00 to 14:00' },
  tasks: tasks.map(({ id, title, about, dueOn, dueTime, state }) => ({ id, title, about, dueOn, dueTime, state })),
  ...of,
});
const refusal = (kind: 'not-now' | 'invalid' | 'changed-meanwhile', detail: string) => {
  const problem = problemOf(kind, detail);
  return refusalOf(problem);
};
const fileOf = (of: Partial<LinkedTask['files'][number]> = {}): LinkedTask['files'][number] => ({
  ...{ id: OTHER, name: 'a.pdf', mediaType: 'application/pdf', bytes: 1, isPicture: false, demand: 'paper' },
  ...{ isKept: false, at: '2026-11-24T10:40', by: null, key: null },
  ...of,
});
const answers = { until: { value: '2027-12-04', remark: '', at: '2026-11-24T10:40', by: null } };
const page = (task: LinkedTask, more: Readonly<Record<string, unknown>> = {}) =>
  show(<ByLinkPage />, { answers: { 'POST /link': opened([task]), [`/link/tasks/${ID}`]: task, ...more } });

beforeEach(() => {
  localStorage.clear();
  window.location.hash = '#token-of-this-test';
});

describe('the page behind a link', () => {
  it('says what is asked, by when, what is missing by its number, and whom to ring', async () => {
    await page(taskOf());
    expect(await screen.findByRole('heading', { level: 1, name: 'Certificate' })).toBeTruthy();
    expect(screen.getByText('in 10 days, takes about 5 min')).toBeTruthy();
    expect(screen.getByText(/^the tick at 1|the file for 2/)).toBeTruthy();
    expect(screen.getByText(/Rhona/).textContent).toBe('Not sure? Ring Rhona, 01632 960 118, weekdays 09:00 to 14:00.');
    expect(screen.getByRole('button', { name: 'Send it to Tern Quay' }).hasAttribute('disabled')).toBe(true);
  });

  it('sends what is written a moment later, keeps what is refused beside why, and what can’t be read unsent', async () => {
    const user = userEvent.setup();
    const sent: unknown[] = [];
    await page(taskOf(), {
      [`PUT /link/tasks/${ID}/answers`]: (body: { demand: string }) => {
        sent.push(body);
        return body.demand === 'feet' ? refusal('invalid', 'Give a number.') : { task: taskOf({ answers }) };
      },
      [`PUT /link/tasks/${ID}/ticks`]: (body: unknown) => {
        sent.push(body);
        return { task: taskOf({ answers }) };
      },
    });
    const until = await screen.findByLabelText('Last day it covers');
    await user.type(until, 'some day');
    expect(screen.getByText('not read yet')).toBeTruthy();
    await user.tab();
    expect(screen.getByDisplayValue('some day')).toBeTruthy();
    await user.clear(until);
    await user.type(until, '4 dec 2027');
    expect(screen.getByText('in a year')).toBeTruthy();
    await user.tab();
    await waitFor(() => expect(sent).toEqual([{ demand: 'until', value: '2027-12-04', remark: '' }]));
    await waitFor(() => expect(screen.getByDisplayValue('Sat 4 Dec 2027')).toBeTruthy());
    await user.click(screen.getByRole('checkbox', { name: 'The rules are read' }));
    await waitFor(() => expect(sent).toContainEqual({ key: 'read', ticked: true }));
    await user.type(screen.getByLabelText('Length'), '20');
    expect(screen.getByText('Say why that is.', { exact: false })).toBeTruthy();
    await user.tab();
    expect(await screen.findByText('Give a number.')).toBeTruthy();
    expect(screen.getByDisplayValue('20')).toBeTruthy();
  });

  it('keeps what was written without a connection on the device, and sends it when the page is opened again', async () => {
    const user = userEvent.setup();
    const lost = await page(taskOf(), { [`PUT /link/tasks/${ID}/answers`]: new TypeError('no net') });
    await user.type(await screen.findByLabelText('Last day it covers'), '4 dec 2027');
    await user.tab();
    expect(await screen.findByText(/No connection just now/)).toBeTruthy();
    lost.unmount();
    const sent: unknown[] = [];
    await page(taskOf(), {
      [`PUT /link/tasks/${ID}/answers`]: (body: unknown) => {
        sent.push(body);
        return { task: taskOf({ answers }) };
      },
    });
    await waitFor(() => expect(sent).toEqual([{ demand: 'until', value: '2027-12-04', remark: '' }]));
    await waitFor(() => expect(Object.keys(localStorage).filter((key) => key.includes('link'))).toEqual([]));
  });

  it('keeps what is being written otherwise where an answer stands, until it can be read', async () => {
    const user = userEvent.setup();
    const sent: unknown[] = [];
    await page(taskOf({ answers }), {
      [`PUT /link/tasks/${ID}/answers`]: (body: unknown) => {
        sent.push(body);
        return { task: taskOf({ answers: {} }) };
      },
    });
    const until = await screen.findByLabelText('Last day it covers');
    await user.type(until, ' or so');
    await user.tab();
    expect(screen.getByDisplayValue('Sat 4 Dec 2027 or so')).toBeTruthy();
    expect(sent).toEqual([]);
    await user.clear(until);
    await user.tab();
    await waitFor(() => expect(sent).toEqual([{ demand: 'until', value: null, remark: '' }]));
  });

  it('writes over no note that another wrote meanwhile, also after it was opened again: one click decides', async () => {
    const user = userEvent.setup();
    const begun = { note: { text: 'Key is with me.', value: true, remark: '', was: '' } };
    localStorage.setItem(placeOf(ID), JSON.stringify(begun));
    const sent: unknown[] = [];
    await page(taskOf({ note: 'Rang Rhona.' }), {
      [`PUT /link/tasks/${ID}/note`]: (body: { note: string; was: string }) => {
        sent.push(body);
        return body.was === '' ? refusal('changed-meanwhile', 'Somebody else.') : { task: taskOf({ note: body.note }) };
      },
    });
    expect(await screen.findByText('Rang Rhona.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Keep both' }));
    const both = 'Rang Rhona.\nKey is with me.';
    await waitFor(() => expect(sent.at(-1)).toEqual({ note: both, was: 'Rang Rhona.' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Keep both' })).toBeNull());
    expect(screen.getByLabelText<HTMLTextAreaElement>('Anything else that we should know').value).toBe(both);
  });

  it('shows a file once, and sends it no more, that got there while only the answer was lost', async () => {
    const waiting = new KeptFiles(ID, 'paper');
    await waiting.keep(OTHER, new File(['%PDF-'], 'a.pdf', { type: 'application/pdf' }));
    const sends = vi.spyOn(XMLHttpRequest.prototype, 'send');
    await page(taskOf({ files: [fileOf({ key: OTHER })] }));
    expect(await screen.findByRole('button', { name: 'Take away a.pdf' })).toBeTruthy();
    await waitFor(async () => expect(await waiting.all()).toEqual([]));
    expect(screen.getAllByText('a.pdf')).toHaveLength(1);
    expect(sends).not.toHaveBeenCalled();
    sends.mockRestore();
  });

  it('shows nothing again that a newer answer has overtaken on its way', async () => {
    const user = userEvent.setup();
    await page(taskOf({ version: 3, files: [fileOf()] }), {
      [`PUT /link/tasks/${ID}/ticks`]: { task: taskOf({ version: 2 }) },
    });
    await user.click(await screen.findByRole('checkbox', { name: 'The rules are read' }));
    await waitFor(() => expect(Object.keys(localStorage).filter((key) => key.includes('link'))).toEqual([]));
    expect(screen.getByText('a.pdf')).toBeTruthy();
  });

  it('says beside a tick why it was refused', async () => {
    const user = userEvent.setup();
    await page(taskOf(), { [`PUT /link/tasks/${ID}/ticks`]: () => refusal('not-now', 'It is finished.') });
    await user.click(await screen.findByRole('checkbox', { name: 'The rules are read' }));
    expect(await screen.findByText('It is finished.')).toBeTruthy();
  });

  it('shows what was sent and what comes next, and lets it be changed while nobody has looked at it', async () => {
    const user = userEvent.setup();
    const done = taskOf({
      ...{ state: 'toCheck', answers, doneAt: '2026-11-24T10:52', nextOn: '2027-12-03' },
      steps: [{ key: 'read', text: 'The rules are read', note: '', demands: [], isTicked: true }],
    });
    await page(done, { [`POST /link/tasks/${ID}/take-back`]: { task: taskOf({ state: 'underWay', answers }) } });
    expect(await screen.findByText('Certificate, sent today at 10:52, 10 days before it was due.')).toBeTruthy();
    expect(screen.getByText('4 Dec 2027')).toBeTruthy();
    expect(screen.getByText(/^Oskar at Tern Quay looks at it/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Change something' }));
    expect(await screen.findByRole('button', { name: 'Send it to Tern Quay' })).toBeTruthy();
  });

  it('to several lists them, and opens the one that is chosen', async () => {
    const user = userEvent.setup();
    const second = taskOf({ id: OTHER, title: 'Key of the locker', dueOn: '2026-11-20', demands: [], steps: [] });
    await show(<ByLinkPage />, {
      answers: { 'POST /link': opened([second, taskOf()]), [`/link/tasks/${OTHER}`]: second },
    });
    expect(await screen.findByRole('heading', { name: 'Tern Quay asks you for 2 things' })).toBeTruthy();
    await user.click(screen.getByRole('link', { name: /Key of the locker/ }));
    expect(await screen.findByText(/^4 days ago/)).toBeTruthy();
    await user.click(screen.getByRole('link', { name: 'Everything that is asked' }));
    expect(await screen.findByRole('heading', { name: 'Tern Quay asks you for 2 things' })).toBeTruthy();
  });

  it('says why a link opens nothing, and that it may do so later where there is no connection', async () => {
    const user = userEvent.setup();
    const shown = await show(<ByLinkPage />, {
      answers: { 'POST /link': () => refusal('not-now', 'This link has run out.') },
    });
    expect(await screen.findByRole('heading', { name: 'This link opens nothing any more' })).toBeTruthy();
    expect(screen.getByRole('alert').textContent).toBe('This link has run out.');
    shown.unmount();
    let tries = 0;
    await show(<ByLinkPage />, {
      answers: {
        'POST /link': () => {
          if (tries++ === 0) throw new TypeError('no net');
          return opened([taskOf()]);
        },
        [`/link/tasks/${ID}`]: taskOf(),
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Try again' }));
    expect(await screen.findByRole('heading', { name: 'Certificate' })).toBeTruthy();
  });
});

describe('what is missing', () => {
  it('is told by its numbers, with what stands here and is not sent yet', () => {
    const task = taskOf();
    const items = askedItems(task);
    expect(items.map(({ number, name }) => `${number} ${name}`)).toEqual([
      '1 The rules are read',
      '2 The certificate',
      '3 Last day it covers',
      '4 Length',
    ]);
    expect(sayMissingItems(missingItems(task, items, {}))).toBe(
      'the file for 2, the answers to 3 and 4 and the tick at 1',
    );
    const kept = { text: '', remark: '', was: '', state: 'typed', said: null } as const;
    const here = {
      'tick read': { ...kept, value: true },
      until: { ...kept, value: '2027-12-04' },
      feet: { ...kept, value: 20 },
    };
    // Outside its limits it asks for a remark.
    expect(sayMissingItems(missingItems(task, items, here))).toBe('the file for 2 and the answer to 4');
    const withFile = { ...task, files: [fileOf()] };
    const within = { ...here, feet: { ...kept, value: 12 } };
    expect(missingItems(withFile, items, within)).toEqual([]);
  });
});
