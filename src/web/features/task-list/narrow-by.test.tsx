import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { show } from '../../testing/show.tsx';
import { NARROWINGS, NarrowBy } from './narrow-by.tsx';

const ID = '01937000-0000-7000-8000-0000000000';
const found = { templates: [], clients: [], assets: [], schedules: [] };
const asset = (id: string, name: string) => ({ id: `${ID}${id}`, name, place: 'Pier B' });
const subject = (name: string, clientId: string | null, assetId: string | null) => ({
  ...{ name, clientId, assetId, detail: '', tag: null },
});

it('narrows down to whatever has the name, each as the address calls it', async () => {
  const onChoose = vi.fn();
  await show(<NarrowBy by={NARROWINGS} onChoose={onChoose} />, {
    answers: {
      '/assets?q=&which=sites': { assets: [asset('01', 'Gannet Quay')], more: null },
      '/assets?q=gan&which=sites': { assets: [asset('01', 'Gannet Quay')], more: null },
      '/subjects?q=gan': {
        subjects: [subject('Gannet', `${ID}02`, `${ID}03`), subject('Gan Orrin', `${ID}02`, null)],
        isMore: false,
      },
      '/find?q=gan': { ...found, templates: [{ id: `${ID}04`, name: 'Gantry check', detail: 'upkeep' }] },
    },
  });
  const user = userEvent.setup();
  const open = () => user.click(screen.getByRole('button', { name: 'Only …' }));
  const offered = () => screen.queryAllByRole('option').map(({ textContent }) => textContent);
  await open();
  await screen.findByRole('option', { name: /Gannet Quay/ });
  expect(offered()).toContain('made by hand');
  await user.click(screen.getByRole('option', { name: /itself/ }));
  await open();
  await user.keyboard('gan');
  await screen.findByRole('option', { name: /Gantry check/ });
  expect(offered()).toEqual(['Gannet', 'Gan Orrin', 'Gantry checkupkeep', 'all at Gannet QuayPier B']);
  await user.click(screen.getByRole('option', { name: 'Gannet' }));
  await open();
  await user.keyboard('gan');
  await user.click(await screen.findByRole('option', { name: 'Gan Orrin' }));
  await open();
  await user.keyboard('gan');
  await user.click(await screen.findByRole('option', { name: /all at Gannet Quay/ }));
  expect(onChoose.mock.calls).toEqual([
    [{ client: 'none' }],
    [{ asset: `${ID}03` }],
    [{ client: `${ID}02` }],
    [{ site: `${ID}01` }],
  ]);
});

it('says that there are more of a name than it offers', async () => {
  const templates = Array.from({ length: 8 }, (_, n) => ({ id: `${ID}1${n}`, name: `Round ${n}`, detail: '' }));
  await show(<NarrowBy by={['template']} onChoose={vi.fn()} />, {
    answers: { '/find?q=round': { ...found, templates } },
  });
  await userEvent.click(screen.getByRole('button', { name: 'Only …' }));
  await userEvent.keyboard('round');
  expect(await screen.findByText('There are more of the name: type more of it to find them.')).toBeTruthy();
});

it('offers none of what a list can’t be narrowed down to', async () => {
  await show(<NarrowBy by={['client', 'template']} hasNone={false} onChoose={vi.fn()} />);
  await userEvent.click(screen.getByRole('button', { name: 'Only …' }));
  expect(screen.queryAllByRole('option')).toEqual([]);
  expect(screen.getByText('Type the name of a client or a template.')).toBeTruthy();
});
