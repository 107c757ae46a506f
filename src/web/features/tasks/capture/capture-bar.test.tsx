import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { CaptureOpening } from '../../../app/shell/openings.tsx';
import { show } from '../../../testing/show.tsx';
import { outbox } from '../../unsent/use-unsent.ts';
import CaptureBar, { type Asked } from './capture-bar.tsx';

const CURLEW = {
  clientId: '01937000-0000-7000-8000-0000000000d1',
  assetId: '01937000-0000-7000-8000-0000000000e1',
  name: 'Curlew’s Cry',
  detail: 'Quentin Brindle, berth C14',
  tag: null,
};
const LINE = "ropes friday for curlew's cry";
const said = (line: string) => `/subjects/said?${new URLSearchParams({ line })}`;
/** What each beginning of the line names, from the first word after "for" on. */
const names = (line: string, subjects: readonly unknown[]) =>
  Object.fromEntries([...line].map((_, i) => [said(line.slice(0, i + 1)), { subjects }]));

interface Sent {
  readonly title: string;
  readonly assetId: string | null;
  readonly on: string;
}

/** As the frame has it; not loaded yet where it is told so. */
function Bar({ isLoaded = true }: { readonly isLoaded?: boolean }) {
  const [asked, setAsked] = useState<Asked>(null);
  return isLoaded ? (
    <CaptureBar asked={asked} onClose={() => undefined} onLands={() => undefined} />
  ) : (
    <CaptureOpening onEnter={setAsked} />
  );
}

function server(answers: Readonly<Record<string, unknown>>) {
  const sent: Sent[] = [];
  return {
    sent,
    answers: {
      ...answers,
      'POST /tasks': (body: Sent) => {
        sent.push(body);
        return { tasks: [], changeId: null };
      },
    },
  };
}
const field = () => screen.getByRole<HTMLInputElement>('textbox');

describe('a captured line', () => {
  it('is about what it names, of however many the workspace has', async () => {
    const { sent, answers } = server(names(LINE, [CURLEW]));
    await show(<Bar />, { answers });
    const user = userEvent.setup();
    await user.type(field(), LINE);
    // Told beside it, and offered no more once it stands there whole.
    expect(await screen.findAllByText('Quentin Brindle, berth C14')).toHaveLength(1);
    await user.keyboard('{Enter}');
    await waitFor(() => expect(sent).toMatchObject([{ title: 'Ropes', assetId: CURLEW.assetId, on: '2026-11-27' }]));
    expect(field().value).toBe('');
  });

  it('is read with the names it says, though Enter comes before them', async () => {
    let tell: (answer: unknown) => void = () => undefined;
    const { sent, answers } = server({
      ...names(LINE, []),
      [said(LINE)]: () => new Promise((resolve) => (tell = resolve)),
    });
    await show(<Bar />, { answers });
    const user = userEvent.setup();
    await user.type(field(), `${LINE}{Enter}`);
    expect(sent).toEqual([]);
    tell({ subjects: [CURLEW] });
    await waitFor(() => expect(sent).toMatchObject([{ title: 'Ropes', assetId: CURLEW.assetId }]));
  });

  it('is kept on this device, in its words, without a connection: names can’t be looked up then', async () => {
    // What another test has left on the device.
    outbox.discardAll();
    const { answers } = server({ ...names(LINE, []), [said(LINE)]: new Error('no way') });
    await show(<Bar />, { answers: { ...answers, 'POST /tasks': new TypeError('no net') } });
    await userEvent.setup().type(field(), `${LINE}{Enter}`);
    await waitFor(() => expect(field().value).toBe(''));
    const [kept] = [...outbox.all.values()];
    const input = { assetId: null, title: expect.stringMatching(/curlew/i) };
    expect(kept).toMatchObject({ kind: 'capture', state: 'waiting', value: { input } });
    outbox.discardAll();
  });

  it('asks nothing where it names nothing', async () => {
    const { sent, answers } = server({});
    await show(<Bar />, { answers });
    await userEvent.setup().type(field(), 'sweep the yard{Enter}');
    await waitFor(() => expect(sent).toMatchObject([{ title: 'Sweep the yard', assetId: null }]));
  });

  it('is added once, though it was typed and asked before the bar was loaded', async () => {
    const { sent, answers } = server({});
    const { show: again } = await show(<Bar isLoaded={false} />, { answers });
    const user = userEvent.setup();
    await user.type(field(), 'sweep the yard{Enter}');
    expect(field().value).toBe('sweep the yard');
    again(<Bar />);
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent).toMatchObject([{ title: 'Sweep the yard' }]);
    expect(document.activeElement).toBe(field());
  });
});
