import { randomUUID } from 'node:crypto';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bringingIn } from '../testing/bring-in.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const { begun, settled, broughtIn, undo } = bringingIn(() => ines);
const taken = async (list: string): Promise<string> => (await ines.get(`/api/lists/${list}`).expect(200)).text;
/** All work there is, as rows: the same before a file and after it is taken out again. */
const whole = async () =>
  JSON.stringify(
    await server.source.query(
      `select 'schedule' as of, id, to_jsonb(s) - 'version' - 'settled_to' as row from schedule s
       union all select 'template', id, to_jsonb(t) - 'version' - 'changed_at' - 'changed_by' from template t
       union all select 'task', id, to_jsonb(k) - 'version' from task k order by 1, 2`,
    ),
  );

describe('a file of schedules', () => {
  const HEAD = 'what,customer,when,by,since';
  const file = [
    HEAD,
    'Payroll run,,every month on the last working day,Maud Ferrier,1/12/2026',
    'Payroll run,,every other blue moon,Maud Ferrier,',
    'Mooring check,,every second Tuesday,,',
    'Payroll run,No Such Client,weekly on Monday,,',
    'Payroll run,,weekly on Wednesday,Nobody Known,',
  ];

  it('reads phrases as on the bench and names as on the worksheet; what can’t be read says why in its place', async () => {
    const now = await begun('schedules', file);
    expect(now.columns.map(({ becomes }) => becomes)).toEqual(['template', 'client', 'when', 'who', 'from']);
    const said = Object.fromEntries(now.left.map(({ number, faults }) => [number, faults.map((one) => one.name)]));
    expect(said).toEqual({ 2: ['when'], 3: ['what'], 4: ['customer'], 5: ['by'] });
    expect(now.counts.left).toBe(4);
    expect(now.counts.new + now.counts.update).toBe(1);
  });

  it('offers what a phrase may mean, and mends every line that says so by one of them', async () => {
    let now = await begun('schedules', [
      'template,when,from',
      'Payroll run,biweekly,1/12/2026',
      'Payroll run, biweekly ,15/12/2026',
      'Payroll run,biweekly,3/12/2026',
      'Payrol run,weekly,',
    ]);
    const offersOf = ({ left }: typeof now) => left.map(({ faults }) => faults.map(({ offers }) => offers));
    expect(offersOf(now)).toEqual([
      [['every 2 weeks on Tue', 'every week on Tue and Fri']],
      [['every 2 weeks on Tue', 'every week on Tue and Fri']],
      [['every 2 weeks on Thu', 'every week on Thu and Sun']],
      [['Payroll run']],
    ]);
    now = await settled(now, { mended: [{ number: 1, column: 1, text: 'every 2 weeks on Tue', isForAll: true }] });
    // What begins on another weekday means other days: it is asked by itself.
    expect(now.left.map(({ number }) => number)).toEqual([3, 4]);
    now = await settled(now, { mended: [{ number: 4, column: 0, text: 'Payroll run', isForAll: true }] });
    expect(now.left.map(({ number }) => number)).toEqual([3]);
  });

  it('makes the schedules with the tasks they owe, looked at before, and goes out again without a trace', async () => {
    const before = await whole();
    const [client] = await server.source.query(
      `select name from client where archived_at is null order by name limit 1`,
    );
    const now = await begun('schedules', [
      'template,client,when,who,from',
      `Payroll run,"${client.name}",daily,Maud Ferrier,2026-11-24`,
      `Payroll run,"${client.name}",weekly on Monday,,2026-12-01`,
      `Payroll run,"${client.name}",weekly on Monday,,2026-12-01`,
    ]);
    expect(now.counts).toMatchObject({ new: 2, same: 1, left: 0 });
    const { body: impact } = await ines
      .post(`/api/bring-ins/${now.id}/impact`)
      .send({ version: now.version })
      .expect(200);
    expect(await whole()).toBe(before);
    const done = await broughtIn(now);
    const made = await server.source.query(
      `select count(*)::int as count from task k join schedule s on s.id = k.schedule_id
       where s.id in (select (before->>'newScheduleId')::uuid from bring_in_row where bring_in_id = $1)`,
      [now.id],
    );
    expect(made[0].count).toBe(impact.figures.added);
    expect(impact.figures.added).toBeGreaterThan(3);
    expect(impact.datesAfter - impact.datesBefore).toBeGreaterThan(300);
    expect((await begun('schedules', await taken('schedules'))).counts).toMatchObject({ new: 0, update: 0, left: 0 });
    expect(await undo(done)).toMatch(/2 schedules are gone again.*2 schedules of schedules\.csv are taken out again\./);
    expect(await whole()).toBe(before);
  });

  it('brings one that is here up to date, says what changes, and puts it back', async () => {
    const before = await whole();
    const [one] = await server.source.query(
      `select t.name, c.name as client, min(s.id::text) as id from schedule s join template t on t.id = s.template_id
       join client c on c.id = s.client_id where s.asset_id is null and s.deleted_at is null and s.revisions = '[]'
       group by t.name, c.name having count(*) = 1 order by 1, 2 limit 1`,
    );
    expect(one).toBeDefined();
    const now = await begun('schedules', ['template,client,when', `"${one.name}","${one.client}",yearly on 3 Dec`]);
    expect(now.counts).toMatchObject({ update: 1, left: 0 });
    expect(now.alike[0]?.diffs).toContainEqual(expect.objectContaining({ name: 'when', to: 'yearly on 3 December' }));
    const done = await broughtIn(now);
    expect(await undo(done)).toContain('1 is as before');
    expect(await whole()).toBe(before);
  });

  it('has every schedule of the demo as it is, once it was taken out as CSV', async () => {
    const now = await begun('schedules', await taken('schedules'));
    expect(now.left.map(({ title, about, why, faults }) => [title, about, why, faults])).toEqual([]);
    expect(now.counts).toMatchObject({ new: 0, update: 0, same: now.rowCount });
  });
});

describe('a file of templates', () => {
  it('has every template of the demo as it is, once it was taken out as CSV', async () => {
    const now = await begun('templates', await taken('templates'));
    expect(now.left.map(({ title, why, faults }) => [title, why, faults])).toEqual([]);
    expect(now.counts).toMatchObject({ new: 0, update: 0, same: now.rowCount });
  });

  it('gathers the steps of several lines, and takes the template out again unless something uses it', async () => {
    const before = await whole();
    const now = await begun('templates', [
      'template,summary,minutes,who,instructions,step,step note,step minutes,step day',
      'Sluice check,The two sluices,45,Maud Ferrier,"Bring the key.\n\nMind <the> step.",Gate closes,,,',
      'Sluice check,,,,,Report,to the harbour office,20,2 working days after',
      'Sluice check,,,,,Order parts,,,3 days after',
      'Lamp check,,,,,,,,',
    ]);
    // A template is brought in whole or not at all.
    expect(now.counts).toMatchObject({ new: 1, left: 3 });
    expect(now.left.map(({ why, faults }) => why || faults[0]?.message)).toEqual([
      'Line 3, which is about it too, is left',
      'Line 3, which is about it too, is left',
      'A step with a day of its own is a task: say how long it takes',
    ]);
    const mended = await settled(now, { usualMinutes: 20, mended: [{ number: 3, column: 8, text: '' }] });
    expect(mended.counts).toMatchObject({ new: 4, left: 0 });
    const done = await broughtIn(mended);
    const rows = await server.source.query(
      `select name, estimate_minutes as minutes, instructions, steps from template where name in ('Sluice check', 'Lamp check') order by name`,
    );
    expect(rows).toEqual([
      expect.objectContaining({ name: 'Lamp check', minutes: 20, steps: [] }),
      {
        name: 'Sluice check',
        minutes: 45,
        instructions: '<p>Bring the key.</p><p>Mind &lt;the&gt; step.</p>',
        steps: [
          expect.objectContaining({ kind: 'check', text: 'Gate closes' }),
          expect.objectContaining({
            kind: 'task',
            titlePattern: 'Report',
            note: 'to the harbour office',
            estimateMinutes: 20,
            offset: { amount: 2, unit: 'workingDay' },
          }),
          expect.objectContaining({ kind: 'check', text: 'Order parts' }),
        ],
      },
    ]);
    const again = await begun('templates', ['template,step', 'Sluice check,Gate closes', 'Sluice check,Gate opens']);
    expect([again.counts.update, again.alike.length]).toEqual([2, 1]);
    const left = await settled(again, { choices: [{ number: 1, choice: 'leave' }] });
    expect(left.counts).toMatchObject({ update: 0, leave: 2 });
    expect(await undo(done)).toBe('2 templates of templates.csv are taken out again.');
    expect(await whole()).toBe(before);
  });
});

describe('files of tasks and of finished work', () => {
  it('makes tasks of lines, leaves what is here, and takes out what nobody has touched', async () => {
    const before = await whole();
    const now = await begun('tasks', [
      'task,due,due at,who,minutes,priority,note,status',
      'Paint the slip,2026-12-04,16:00,Maud Ferrier,1 h 30,high,Two coats,open',
      'Order rope,2026-12-02,,,,,,',
      'Old work,2026-11-02,,,,,,done',
    ]);
    expect(now.counts).toMatchObject({ new: 2, left: 1 });
    expect(now.left[0]?.faults[0]?.message).toBe('It is done: bring it in with the finished work');
    const done = await broughtIn(now);
    const rows = await server.source.query(
      `select t.title, t.due_time, t.estimate_minutes, t.priority, w.brief, p.name from task t join work_content w on w.id = t.content_id and w.workspace_id = t.workspace_id
       left join person p on p.id = t.assignee_id where t.title in ('Paint the slip', 'Order rope') order by title`,
    );
    expect(rows).toEqual([
      { title: 'Order rope', due_time: null, estimate_minutes: 30, priority: 'normal', brief: '', name: null },
      {
        ...{ title: 'Paint the slip', due_time: '16:00', estimate_minutes: 90, priority: 'high' },
        ...{ brief: 'Two coats', name: 'Maud Ferrier' },
      },
    ]);
    const again = await begun('tasks', ['task,due', 'paint the slip,2026-12-04']);
    expect([again.counts.new, again.counts.leave]).toEqual([0, 1]);
    const { id } = (await server.source.query(`select id from task where title = 'Order rope'`))[0];
    await ines.post(`/api/tasks/${id}/comments`).send({ key: randomUUID(), text: 'Which length?' }).expect(200);
    expect(await undo(done)).toContain('stays: Order rope');
    await server.source.query('delete from task where id = $1', [id]);
    expect(await whole()).toBe(before);
  });

  it('stands in the logbook as finished, on its day and on time, and goes out again', async () => {
    const before = await whole();
    const now = await begun('history', [
      'Job,Completed,Completed by,Deadline,Result,Status',
      'Winter service,03/02/2024,Maud Ferrier,01/02/2024,Fine,done',
      'Winter service,31/01/2025 15:45,M. Ferrier,31/01/2025,,done',
      'Winter service,,,28/02/2026,no boat,skipped',
      'Winter service,12/12/2099,,,,done',
      'Winter service,,,,,open',
    ]);
    expect(now.dayOrder).toBe('day first');
    expect(now.counts).toMatchObject({ new: 3, left: 2 });
    expect(now.fresh.map(({ about }) => about)).toEqual([
      ...['Sat 3 Feb 2024, Maud Ferrier', 'Fri 31 Jan 2025 at 15:45, Maud Ferrier', 'Sat 28 Feb, skipped'],
    ]);
    const done = await broughtIn(now);
    const rows = await server.source.query(
      `select t.due_on::text, to_char(t.done_at at time zone 'Europe/London', 'YYYY-MM-DD HH24:MI') as done, t.state, t.on_time, p.name, t.note
       from task t left join person p on p.id = t.done_by where t.title = 'Winter service' order by 1`,
    );
    expect(rows).toEqual([
      {
        due_on: '2024-02-01',
        done: '2024-02-03 12:00',
        state: 'done',
        on_time: false,
        name: 'Maud Ferrier',
        note: 'Fine',
      },
      { due_on: '2025-01-31', done: '2025-01-31 15:45', state: 'done', on_time: true, name: 'Maud Ferrier', note: '' },
      { due_on: '2026-02-28', done: null, state: 'skipped', on_time: null, name: null, note: 'no boat' },
    ]);
    expect(await undo(done)).toContain('3 finished tasks of history.csv are taken out again');
    expect(await whole()).toBe(before);
  });

  it('has the tasks that were taken out as CSV as they are, the open ones and the finished', async () => {
    const lines = Papa.parse<Record<string, string>>((await taken('tasks')).replace(/^\uFEFF/, ''), {
      header: true,
    }).data;
    const some = lines.filter(({ state }) => state === 'done').slice(0, 200);
    const now = await begun('history', Papa.unparse(some));
    expect(now.left.map(({ why, faults }) => [why, faults])).toEqual([]);
    expect(now.counts).toMatchObject({ leave: some.length, new: 0 });
  });

  it('is refused to whoever may not plan', async () => {
    const nadia = await server.browser('Nadia Orme');
    for (const kind of ['schedules', 'tasks', 'templates', 'history'])
      await nadia.post('/api/bring-ins').field('kind', kind).attach('file', Buffer.from('a\nb'), 'a.csv').expect(403);
  });
});
