import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { Webhook, WebhookDelivery } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { WebhooksPage } from './webhooks-page.tsx';

const id = (n: number) => `01937000-0000-7000-8000-00000000e${String(n).padStart(3, '0')}`;
const hook = (more: Partial<Webhook> = {}): Webhook => ({
  ...{
    id: id(1),
    version: 1,
    name: 'Wall screen',
    url: 'https://screen.example/rota',
    events: ['task.late'],
    isOn: true,
  },
  ...{ secret: 'whsec_abc', madeAt: '2026-11-20T09:00', waiting: 0, failed: 2, ...more },
});
const delivery: WebhookDelivery = {
  ...{ id: id(9), event: 'task.late', task: 'Hose reels', at: '2026-11-24T09:00', state: 'failed', tries: 9 },
  said: 'answered 410',
};

it('names a program, says what is wrong with its address, shows what it was told and tells it once more', async () => {
  const user = userEvent.setup();
  const added: unknown[] = [];
  let again = 0;
  await show(<WebhooksPage />, {
    answers: {
      '/webhooks': { webhooks: [hook()] },
      'POST /webhooks': (body: { url: string }) => {
        added.push(body);
        return { webhooks: [hook(), hook({ id: id(2), name: 'Board' })] };
      },
      [`/webhooks/${id(1)}/deliveries?`]: { deliveries: [delivery], more: false },
      [`/webhooks/${id(1)}/deliveries`]: { deliveries: [delivery], more: false },
      [`POST /webhook-deliveries/${id(9)}/again`]: () => {
        again++;
        return { delivery };
      },
    },
  });
  const one = within(await screen.findByRole('region', { name: 'Wall screen' }));
  expect(one.getByText('tasks late')).toBeTruthy();
  expect(one.getByText('2 things given up within a week')).toBeTruthy();
  expect(one.queryByText('whsec_abc')).toBeNull();
  await user.click(one.getByRole('button', { name: 'Show its secret' }));
  expect(one.getByText('whsec_abc')).toBeTruthy();
  await user.click(one.getByRole('button', { name: 'What it was told' }));
  expect((await one.findByRole('listitem')).textContent).toContain(
    'Hose reels lategiven up, tried 9 times, answered 410',
  );
  await user.click(one.getByRole('button', { name: 'Tell it once more: Hose reels late' }));
  await waitFor(() => expect(again).toBe(1));
  await user.click(screen.getByRole('button', { name: 'Tell a program' }));
  await user.type(screen.getByRole('textbox', { name: 'What the webhook is for' }), 'Board');
  await user.type(screen.getByRole('textbox', { name: 'Its address' }), 'https://board.example');
  await user.click(screen.getByRole('checkbox', { name: 'made' }));
  await user.click(screen.getByRole('button', { name: 'Tell it from now on' }));
  expect(await screen.findByRole('region', { name: 'Board' })).toBeTruthy();
  expect(added).toEqual([
    { name: 'Board', url: 'https://board.example', events: ['task.made', 'task.finished', 'task.late'], isOn: true },
  ]);
});
