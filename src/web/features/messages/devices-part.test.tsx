import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { PushDevices, PushPlace } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { DevicesPart } from './devices-part.tsx';

const KEY = 'BPAE'.padEnd(87, 'A');
const ID = '01937000-0000-7000-8000-00000000d001';
const PLACE = { endpoint: 'https://push.example/1', keys: { p256dh: 'B'.repeat(87), auth: 'C'.repeat(22) } };
const device = (of: Partial<PushDevices['devices'][number]> = {}) => ({
  ...{ id: ID, name: 'computer', endpoint: PLACE.endpoint, addedAt: '2026-11-24T10:40', toldAt: null, trouble: null },
  ...of,
});

/** A browser that can be pushed to, as far as this page asks it. */
function browser(permission: 'granted' | 'denied') {
  let place: (typeof PLACE & { toJSON(): object; unsubscribe(): Promise<boolean> }) | null = null;
  const asked: unknown[] = [];
  const pushManager = {
    getSubscription: async () => place,
    subscribe: async (of: { applicationServerKey: Uint8Array }) => {
      asked.push(of.applicationServerKey.length);
      place = {
        ...PLACE,
        toJSON: () => PLACE,
        unsubscribe: async () => {
          place = null;
          return true;
        },
      };
      return place;
    },
  };
  const registration = { pushManager };
  vi.stubGlobal('isSecureContext', true);
  vi.stubGlobal('PushManager', class {});
  vi.stubGlobal('Notification', { permission: 'default', requestPermission: async () => permission });
  Object.defineProperty(navigator, 'serviceWorker', {
    configurable: true,
    value: { getRegistration: async () => registration, ready: Promise.resolve(registration) },
  });
  return { asked, here: () => place };
}

beforeEach(() => {
  vi.stubGlobal('matchMedia', () => ({ matches: false }));
});
afterEach(() => {
  vi.unstubAllGlobals();
  Reflect.deleteProperty(navigator, 'serviceWorker');
});

it('asks the browser for a place with our key, adds it, and leaves it again', async () => {
  const { asked, here } = browser('granted');
  const sent: PushPlace[] = [];
  await show(<DevicesPart />, {
    answers: {
      '/push': { key: KEY, devices: [] },
      'POST /push': (body: PushPlace) => {
        sent.push(body);
        return { key: KEY, devices: [device()] };
      },
      [`DELETE /push/${ID}`]: { key: KEY, devices: [] },
    },
  });
  const user = userEvent.setup();
  await user.click(await screen.findByRole('button', { name: 'Show it on this device' }));
  await user.click(await screen.findByRole('button', { name: 'Take out this device' }));
  expect(sent).toEqual([{ ...PLACE, name: 'computer' }]);
  expect(asked).toEqual([65]);
  await waitFor(() => expect(here()).toBeNull());
  expect(await screen.findByRole('button', { name: 'Show it on this device' })).toBeTruthy();
});

it('says what to do where whoever sits here has refused it, and sends nothing', async () => {
  browser('denied');
  await show(<DevicesPart />, { answers: { '/push': { key: KEY, devices: [] } } });
  const user = userEvent.setup();
  await user.click(await screen.findByRole('button', { name: 'Show it on this device' }));
  expect(await screen.findByText(/was told to show nothing from here/)).toBeTruthy();
});

it('tells other devices with what troubles them, and why this one can’t', async () => {
  vi.stubGlobal('isSecureContext', true);
  await show(<DevicesPart />, {
    answers: {
      '/push': {
        key: KEY,
        devices: [
          device({ name: 'phone or tablet', trouble: 'its push service answered 503' }),
          device({ id: `${ID.slice(0, -1)}2` }),
        ],
      },
    },
  });
  expect(await screen.findByText('its push service answered 503')).toBeTruthy();
  expect(screen.getByText('told nothing yet')).toBeTruthy();
  expect(screen.getByText(/This browser can’t/)).toBeTruthy();
});
