import QRCode from 'qrcode';
import { expect, expectAccessible, stepIn, test } from './journey.ts';

/** A picture of a label, as a phone takes it. */
const label = async (tag: string) => ({
  name: 'label.png',
  mimeType: 'image/png',
  buffer: await QRCode.toBuffer(tag, { width: 900, margin: 12 }),
});

test('a wrong tag starts nothing and says whose it is, the right one is read from a picture of its label, and done is done', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await stepIn(page, 'Ines Calloway');
  const taskId = await page.evaluate(async () => {
    const post = async (address: string, body: object) => {
      const answer = await fetch(`/api${address}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
      return answer.json();
    };
    const { me } = await (await fetch('/api/session')).json().then(({ person }) => ({ me: person.id as string }));
    const { assets } = await (await fetch('/api/assets?q=crane+2')).json().catch(() => ({ assets: [] }));
    const template = {
      ...{ name: 'Hook look', titlePattern: 'Hook look', category: null, instructions: '', estimateMinutes: 10 },
      demands: [{ key: 'tag', label: 'Tag of the crane', kind: 'tag', atStart: true }],
    };
    const { template: made } = await post('/templates', { template, like: null });
    const started = await post(`/templates/${made.id}/start`, {
      ...{
        on: '2026-11-24',
        clientId: null,
        assetId: assets.find(({ name }: { name: string }) => name === 'Crane 2').id,
        assigneeId: me,
        special: '',
      },
      parts: [{ step: '', on: '2026-11-24', startTime: null, dueTime: null, assigneeId: me }],
    });
    return started.tasks[0].id as string;
  });
  await page.goto(`/tasks/task/${taskId}`);
  const sheet = page.getByRole('complementary', { name: 'Hook look' });
  // Only what hangs on the crane starts it.
  await expect(sheet.getByRole('button', { name: 'Finish' })).toHaveCount(0);
  const camera = sheet.getByLabel('Picture of the tag for Read the tag of Crane 2 to start');
  // A picture of something else, and the tag of another thing.
  await camera.setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: Buffer.from('nothing of a picture') });
  await expect(sheet.getByRole('alert')).toContainText('No code could be read in that picture');
  await sheet.getByRole('button', { name: 'Choose the tag' }).click();
  await page.getByRole('combobox', { name: 'Choose the tag' }).fill('pontoon a');
  await page.getByRole('option', { name: /^PA-1/ }).click();
  await expect(sheet).toContainText('“PA-1” is the tag of Pontoon A, Lee Quay. This task is about Crane 2.');
  await expectAccessible(sheet);
  await camera.setInputFiles(await label('CR-2'));
  await expect(page.locator('[data-toast]', { hasText: 'Started “Hook look”.' })).toBeVisible();
  await expect(sheet.getByLabel('Tag of the crane', { exact: true })).toHaveValue('CR-2');
  await expect(sheet).not.toContainText('is the tag of Pontoon A');
  await sheet.getByRole('button', { name: 'Finish' }).click();
  await expect(sheet).toContainText('CR-2');
  await expect(sheet.getByRole('button', { name: 'Undo the finish' })).toBeVisible();
  // Something comes to mind a little later on the same day.
  await sheet.getByLabel('Note', { exact: true }).fill('Paint is worn at the hook.');
  await sheet.getByLabel('Note', { exact: true }).blur();
  await expect(sheet.getByText('kept', { exact: true })).toBeVisible();
  await page.reload();
  await expect(sheet).toContainText('Paint is worn at the hook.');
});
