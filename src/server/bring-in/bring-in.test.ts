import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BringIn } from '../../contract/index.ts';
import { bringingIn } from '../testing/bring-in.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const upload = (file: string | Buffer, { kind = 'clients', name = 'berths.csv', by = ines } = {}) =>
  by.post('/api/bring-ins').field('kind', kind).attach('file', Buffer.from(file), name);
const { one, begun: begunOf, settled, broughtIn, undo } = bringingIn(() => ines);
const begun = (lines: readonly string[], kind = 'clients') => begunOf(kind, lines, 'berths.csv');
const whole = () =>
  server.source.query(
    `select id, concat(name, address, usual_person_id, notes, fields, archived_at) as said from client
     union all select id, concat(client_id, name, role, email, telephone, prefers) from contact
     union all select id, concat(client_id, name, tag, place, fields) from asset
     union all select id, concat(name, email, telephone, roles, team, access, weeks, works_from, works_until) from person order by 1`,
  );
const named = async (name: string) =>
  (await ines.get('/api/clients').query({ q: name }).expect(200)).body.clients as { id: string; name: string }[];

const HEAD = 'Holder,Boat,Berth,E-mail,Tel,Adviser,insured until,length m,col_9';

describe('a column that becomes a field of its own', () => {
  const file = ['Holder,Boat,Draught m', 'Ottoline Vey,Sedge Warbler,"1.4"', 'Corwin Bly,Little Stint,2'];
  const fieldsNow = async () => (await ines.get('/api/workspace').expect(200)).body.assetFields as { name: string }[];

  it('adds it with the file, and takes it out with the file; the next one like it finds it', async () => {
    const [before, fields] = [await whole(), await fieldsNow()];
    let now = await settled(await begun(file), { columns: ['name', 'asset', 'new.asset.number'] });
    expect(now.columns[2]?.becomes).toBe('new.asset.number');
    expect(now.counts).toMatchObject({ new: 2, left: 0 });
    expect(await fieldsNow()).toEqual(fields);
    now = await broughtIn(now);
    expect(await fieldsNow()).toContainEqual({ key: 'draught-m', name: 'Draught m', kind: 'number', choices: [] });
    const kept = await server.source.query(
      `select name, fields->'draught-m' as draught from asset where name in ('Sedge Warbler', 'Little Stint') order by name`,
    );
    expect(kept).toEqual([
      { name: 'Little Stint', draught: 2 },
      { name: 'Sedge Warbler', draught: 1.4 },
    ]);
    const next = await begun(file);
    expect([next.columns[2]?.becomes, next.counts.same]).toEqual(['asset.draught-m', 2]);
    await undo(now);
    expect(await fieldsNow()).toEqual(fields);
    expect(await whole()).toEqual(before);
  });

  it('leaves it where somebody has filled it in since', async () => {
    const now = await broughtIn(await settled(await begun(file), { columns: ['name', 'asset', 'new.asset.number'] }));
    await server.source.query(
      `update asset set fields = fields || '{"draught-m": 3}' where id = (select id from asset where name = 'Crane 1')`,
    );
    expect(await undo(now)).toContain('the field Draught m');
    expect(await fieldsNow()).toContainEqual(expect.objectContaining({ key: 'draught-m' }));
  });

  it('is refused where there is one of that name, and to whoever may not change the settings', async () => {
    const refused = async (now: BringIn, columns: readonly (string | null)[], by = ines): Promise<string> =>
      (await by.put(`/api/bring-ins/${now.id}`).send({ version: now.version, columns }).expect(422)).body.errors[0]
        .message;
    const now = await begun(['Holder,Insured until,Keel,Keel', 'Nell,,long,deep']);
    expect(await refused(now, ['name', 'new.client.date', null, null])).toBe(
      'There is a field “Insured until” already: choose that one.',
    );
    expect(await refused(now, ['name', null, 'new.client.text', 'new.client.text'])).toContain(
      'Two columns are called',
    );
    const maud = await server.browser('Maud Ferrier');
    const prepared = await settled(now, { columns: ['name', null, 'new.client.text', null] });
    await maud
      .post(`/api/bring-ins/${now.id}/bring-in`)
      .send({ version: prepared.version, counts: prepared.counts })
      .expect(422);
    now.version = prepared.version;
    expect(await refused(now, ['name', null, 'new.client.text', null], maud)).toContain(
      'Only a manager can add a field',
    );
  });
});

describe('names with the last name first', () => {
  it('are read as they stand, until it is said that they are to be turned', async () => {
    let now = await begun(['Holder,Contact', '"Lusk, Piran","Lusk, Wenna"', 'Torr & Daughters,']);
    expect(now.names).toEqual({ count: 2, isTurned: false, example: 'Lusk, Piran', turned: 'Piran Lusk' });
    expect(now.fresh.map(({ title }) => title)).toEqual(['Lusk, Piran', 'Torr & Daughters']);
    now = await settled(now, { turnsNames: true });
    expect(now.fresh.map(({ title }) => title)).toEqual(['Piran Lusk', 'Torr & Daughters']);
    expect((await begun(['Holder,Contact', '"Lusk, Piran",'])).names.isTurned).toBe(true);
  });
});

describe('a file of clients', () => {
  it('is read as it most likely is meant, and nothing is written by that', async () => {
    const before = await whole();
    const now = await begun([
      HEAD,
      'Nell Iddon-Vane,Bosun Bee,D 14,nell@vane.example,01632 960 700,K. Sorrell,28/02/2027,"9,4",',
      'Piran Lusk,"Slow ""March""",E 2,,"+44 1632 960 701",Tomas,01/03/2027,11.2,',
    ]);
    expect(now.columns.map(({ becomes }) => becomes)).toEqual([
      ...['name', 'asset', 'place', 'email', 'telephone', 'usualPerson', 'own.insured', 'asset.length', null],
    ]);
    expect([now.encoding, now.separator, now.rowCount, now.dayOrder]).toEqual(['UTF-8', 'commas', 2, 'day first']);
    expect(now.dates).toMatchObject({ order: 'day first', example: '28/02/2027', sure: 1, either: 1 });
    expect(now.people).toMatchObject([
      { name: 'K. Sorrell', isSure: true },
      { name: 'Tomas', personId: null, isSure: false },
    ]);
    expect(now.counts).toEqual({ new: 2, update: 0, same: 0, leave: 0, left: 0 });
    expect(now.columns[8]).toMatchObject({ becomes: null, empty: 2 });
    expect(await whole()).toEqual(before);
  });

  it('has its five kinds of trouble told in words, is mended in place, brought in, and taken out again', async () => {
    const before = await whole();
    const [there] = await server.source.query<{ name: string; vessel: string; email: string }[]>(
      `select c.name, a.name as vessel, k.email from client c join asset a on a.client_id = c.id
       join contact k on k.client_id = c.id and k.position = 0 order by c.name limit 1`,
    );
    let now = await begun([
      HEAD,
      'Verity Strand,Lady Strand,A 1,verity@strand.example,,,31/02/2027,,',
      ',Saltmarsh Lass,E 8,,,,,,',
      `Other Name,${there?.vessel},B 8,,01632 960 999,,,,`,
      'Wenna Dray,Marsh Hen,C 1,not a mail,,,,"1,234",',
      'Hal Torr,Tern,D 1,verity@strand.example,,,,,',
      'Ivo Lark,Dotterel,D 2,ivo@lark.example,,Ayesha,,,',
      'Ivo Lark,Dotterel’s tender,D 2,ivo@lark.example,,,,,',
      'Ivo Lark,Dotterel,D 2,ivo@lark.example,,,,,',
    ]);
    now = await settled(now, { sameBy: 'asset, mail or name' });
    expect(now.left.map(({ number, why, faults }) => [number, why, faults.map(({ message }) => message)])).toEqual([
      [1, '', ['“31/02/2027”: there is no 31 February 2027']],
      [2, '', ['The client is missing']],
      [4, '', ['“not a mail” is no mail address', '“1,234” can be 1234 or 1.234: write which']],
    ]);
    expect(now.alike).toMatchObject([{ number: 3, why: `same asset; it keeps the name ${there?.name}` }]);
    expect(now.alike[0]?.diffs.map(({ name }) => name)).toEqual(['a new contact', 'place']);
    expect(now.fates).toBe('xxuxnnns');
    now = await settled(now, { mended: [{ number: 1, column: 6, text: '28/02/2027' }] });
    // Now that line 1 can be read, its mail stands twice.
    expect(now.left.map(({ number, why }) => [number, why])).toEqual([
      ...[
        [2, ''],
        [4, ''],
        [5, 'Line 1 has the same mail under another name'],
      ],
    ]);
    now = await settled(now, { mended: [{ number: 2, column: 0, text: 'Saltmarsh Syndicate' }] });
    now = await settled(now, { choices: [{ number: 3, choice: 'leave' }] });
    expect(now.counts).toEqual({ new: 4, update: 0, same: 1, leave: 1, left: 2 });
    const csv = (await ines.get(`/api/bring-ins/${now.id}/left`).expect(200)).text;
    expect(csv.split('\r\n')[0]).toBe(`\uFEFF${HEAD},why it was left`);
    expect(csv).toContain('Hal Torr,Tern,D 1,verity@strand.example,,,,,,Line 1 has the same mail under another name');
    expect(csv).toContain('“not a mail” is no mail address; “1,234” can be 1234 or 1.234: write which');
    now = await settled(now, { choices: [{ number: 3, choice: 'update' }] });
    const done = await broughtIn(now);
    expect(done.state).toBe('done');
    const [ivo] = await named('Ivo Lark');
    const record = (await ines.get(`/api/clients/${ivo?.id}`).expect(200)).body;
    expect(record.assets.map(({ name }: { name: string }) => name)).toEqual(['Dotterel', 'Dotterel’s tender']);
    expect(record.contacts).toHaveLength(1);
    expect(record.usualPerson.name).toBe('Ayesha Quill');
    const history = (await ines.get(`/api/clients/${ivo?.id}/history`).expect(200)).body.entries;
    expect(history[0]).toMatchObject({ said: 'brought in from a file', undo: null });
    await ines.put(`/api/bring-ins/${now.id}`).send({ version: done.version }).expect(409);
    expect(await undo(done)).toBe('3 clients of berths.csv are taken out again, 1 is as before.');
    expect(await whole()).toEqual(before);
  });

  it('stays where it has been given work since, and says so', async () => {
    const now = await broughtIn(await begun(['client,telephone', 'Amity Crane,1', 'Bevis Crane,2']));
    const [amity] = await named('Amity Crane');
    const [template] = await server.source.query<{ id: string }[]>('select id from template order by name limit 1');
    await ines
      .post('/api/tasks')
      .send({
        ...{ title: 'Call back', on: '2026-11-25', dueOn: '2026-11-25', startTime: null, dueTime: null },
        ...{ assigneeId: null, clientId: amity?.id, assetId: null, estimateMinutes: 10 },
      })
      .expect(200);
    expect(template).toBeDefined();
    expect(await undo(now)).toBe(
      '1 client of berths.csv is taken out again; what has been changed or given work since stays: Amity Crane.',
    );
    expect(await named('Bevis Crane')).toEqual([]);
  });

  it('leaves whole what somebody has changed since, and what is theirs', async () => {
    const now = await broughtIn(
      await begun(['client,asset,telephone', 'Gwyn Sandover,Knot,1', 'Hesper Sandover,Ruff,2']),
    );
    const [gwyn] = await named('Gwyn Sandover');
    const record = (await ines.get(`/api/clients/${gwyn?.id}`).expect(200)).body;
    await ines
      .put(`/api/clients/${gwyn?.id}`)
      .send({ ...record, notes: 'Rings first.' })
      .expect(200);
    expect(await undo(now)).toContain('stays: Gwyn Sandover.');
    const after = (await ines.get(`/api/clients/${gwyn?.id}`).expect(200)).body;
    expect([after.contacts, after.assets]).toEqual([record.contacts, record.assets]);
    expect(await named('Hesper Sandover')).toEqual([]);
  });

  it('is taken out whole again though several lines were about one who was here', async () => {
    const [name] = (await named('')).map((client) => client.name);
    const before = await whole();
    const now = await begun([
      'client,asset,notes',
      `${name},First Thing,one`,
      ...Array.from({ length: 520 }, (_, i) => `Far ${i},Thing ${i},`),
      `${name},Second Thing,two`,
    ]);
    expect(now.counts).toMatchObject({ new: 520, update: 2 });
    expect(await undo(await broughtIn(now))).toBe('520 clients of berths.csv are taken out again, 1 is as before.');
    expect(await whole()).toEqual(before);
  });

  it('is read once more when it is brought in: who was added meanwhile is found', async () => {
    const now = await begun(['client,address', 'Cleo Marram,1 Mill Lane']);
    await ines
      .post('/api/clients')
      .send({ name: 'Cleo Marram', address: '', usualPersonId: null, notes: '', fields: {}, contacts: [] })
      .expect(200);
    await ines.post(`/api/bring-ins/${now.id}/bring-in`).send({ version: now.version, counts: now.counts }).expect(409);
    const again = await one(now.id);
    expect(again.counts).toMatchObject({ new: 0, update: 1 });
    await broughtIn(again);
  });

  it('is mapped as the last one of its shape was', async () => {
    const first = await begun(['Who,Something', 'Dane Pell,x']);
    expect(first.columns.map(({ becomes }) => becomes)).toEqual([null, null]);
    expect(first.left[0]?.why).toBe('The client is missing');
    await settled(first, { columns: ['name', 'notes'] });
    const second = await begun(['Who,Something', 'Elva Pell,y']);
    expect([second.isRemembered, second.counts.new, second.columns.map(({ becomes }) => becomes)]).toEqual([
      ...[true, 1, ['name', 'notes']],
    ]);
    const refused = await ines
      .put(`/api/bring-ins/${second.id}`)
      .send({ version: second.version, columns: ['name', 'name'] })
      .expect(422);
    expect(refused.body.errors).toEqual([{ path: 'columns.1', message: '“Who” is the client already.' }]);
    expect((await ines.delete(`/api/bring-ins/${second.id}`).expect(200)).body.discarded).toBe(true);
    await ines.get(`/api/bring-ins/${second.id}`).expect(404);
  });
});

describe('a file', () => {
  it.each([
    [
      'of Windows-1252',
      Buffer.from('client;notes\nZo\xeb Str\xe4nd;\x93caf\xe9\x94\n', 'latin1'),
      'Windows-1252',
      'semicolons',
      'Zoë Stränd',
    ],
    [
      'with a mark, split at tabs',
      Buffer.from('\uFEFFclient\tnotes\nZoë Stränd\t"two\r\nlines"\n'),
      'UTF-8',
      'tabs',
      'Zoë Stränd',
    ],
    ['of UTF-16', Buffer.from('\uFEFFclient,notes\r\nZoë Stränd,x', 'utf16le'), 'UTF-16', 'commas', 'Zoë Stränd'],
  ])('%s is read', async (_, bytes, encoding, separator, name) => {
    const { id } = (await upload(bytes).expect(200)).body;
    const now = await one(id);
    expect([now.encoding, now.separator, now.rowCount, now.fresh[0]?.title]).toEqual([encoding, separator, 1, name]);
  });

  it.each([
    ['nothing', '', 'It is empty.'],
    ['a head alone', 'client,notes\n', 'It has no lines below its head.'],
    ['a spreadsheet', 'PK\u0003\u0004 and more', 'It is a spreadsheet, not a CSV file.'],
    ['a picture', '\u0089PNG\u0000\u0000', 'It is no text.'],
    ['too many lines', `client\n${'x\n'.repeat(20_001)}`, 'It has more than 20,000 lines.'],
    ['too many columns', `${'a,'.repeat(70)}\n1`, 'It has 71 columns, 60 at most.'],
    ['a quote that is never closed', `client\n"${'x'.repeat(5_001)}`, 'A quotation mark may be missing there.'],
  ])('of %s is refused in words', async (_, file, message) => {
    const { body } = await upload(file).expect(422);
    expect(body.errors).toEqual([{ path: 'file', message: expect.stringContaining(message) }]);
  });

  it('of many pieces is read as one: signs of several bytes, quotes within a cell, ends of lines within quotes', async () => {
    const lines = Array.from({ length: 6000 }, (_, i) => `Zoë ${i},5" hose ö${i},"two\r\nlines, ""${i}"""`);
    const { id } = (await upload(`client,place,notes\r\n${lines.join('\r\n')}\r\n`).expect(200)).body;
    const now = await one(id);
    expect([now.rowCount, now.counts.new, now.counts.left]).toEqual([6000, 6000, 0]);
    const rows = await server.source.query<{ cells: string[] }[]>(
      'select cells from bring_in_row where bring_in_id = $1 order by number',
      [id],
    );
    expect(rows.map(({ cells }) => cells)).toEqual(
      lines.map((_, i) => [`Zoë ${i}`, `5" hose ö${i}`, `two\nlines, "${i}"`]),
    );
    const { body } = await upload(`client,notes\nA,b\n"C,${'d\n'.repeat(200_000)}`).expect(422);
    expect(body.errors[0].message).toContain('A quotation mark may be missing');
  });

  it('of 30 MB is refused, and one of 40 % broken lines is read', async () => {
    const { body } = await upload(Buffer.alloc(30 * 1024 * 1024, 'a,b\n')).expect(413);
    expect(body.errors[0].message).toContain('larger than 10 MB');
    const now = await begun([
      'client,mail',
      ...Array.from({ length: 100 }, (_, i) => (i % 5 < 2 ? `Broken ${i},at nowhere` : `Whole ${i},w${i}@x.example`)),
    ]);
    expect(now.counts).toMatchObject({ new: 60, left: 40 });
    expect(now.left).toHaveLength(20);
    const more = (await ines.get(`/api/bring-ins/${now.id}/rows`).query({ which: 'left', after: 47 }).expect(200)).body;
    expect(more.rows[0].number).toBe(51);
  });

  it('is nobody’s but of those who may', async () => {
    const maud = await server.browser('Maud Ferrier');
    await upload('name\nx', { kind: 'people', by: maud }).expect(403);
    await upload('name\nx', { by: await server.browser('Nadia Orme') }).expect(403);
    const { id } = (await upload('name,mail\nPerrin Vale,p@x.example', { kind: 'people' }).expect(200)).body;
    await maud.get(`/api/bring-ins/${id}`).expect(403);
    await maud.get(`/api/bring-ins/${id}/left`).expect(403);
    await (await server.browser('Ada Winn')).get(`/api/bring-ins/${id}`).expect(404);
  });
});

describe('a file of people', () => {
  it('brings them in without inviting anybody, brings others up to date, and takes all of it back', async () => {
    const before = await whole();
    const now = await begun(
      [
        'name,mail,telephone,roles,team,access,hours a week,first day,last day',
        'Perrin Vale,perrin@vale.example,1,"rigger; first aider",yard,member,37.5,2026-12-01,',
        'Nadia Orme,,01632 960 888,,,,,,',
        'Sib Torr,perrin@vale.example,,,,,,,',
        'Tam Vole,,,,,boss,,,',
        'Una Wick,,,,,,,2027-02-01,2027-01-01',
        'Perrin Vale,,,,,,,,',
      ],
      'people',
    );
    expect(now.alike.map(({ title, diffs }) => [title, diffs.map(({ name }) => name)])).toEqual([
      ['Nadia Orme', ['telephone']],
    ]);
    expect(now.left.map(({ why, faults }) => [why, ...faults.map(({ message }) => message)].filter(Boolean))).toEqual([
      ['The mail stands in line 1 too'],
      ['“boss” is none of manager, planner, member, viewer'],
      ['The last day lies before the first'],
      ['The name stands in line 1 too'],
    ]);
    const mails = await server.source.query('select count(*) from mail');
    const done = await broughtIn(now);
    expect(await server.source.query('select count(*) from mail')).toEqual(mails);
    expect(await server.person('Perrin Vale')).toMatchObject({
      ...{ roles: ['rigger', 'first aider'], team: 'yard', access: 'member', worksFrom: '2026-12-01' },
      weeks: [[450, 450, 450, 450, 450, 0, 0]],
    });
    expect(await undo(done)).toBe('1 person of berths.csv is taken out again, 1 is as before.');
    expect(await whole()).toEqual(before);
  });
});

describe('a person who is brought up to date', () => {
  it('keeps a week of their own where the hours in all are the same, and gets others where they are not', async () => {
    const { weeks, weeksFrom } = await server.person('Rhona Vick');
    expect(weeks).toHaveLength(2);
    const head = 'name,telephone,hours a week';
    const same = await broughtIn(await begun([head, 'Rhona Vick,01632 960 777,28'], 'people'));
    expect(await server.person('Rhona Vick')).toMatchObject({ telephone: '01632 960 777', weeks, weeksFrom });
    await undo(same);
    const other = await broughtIn(await begun([head, 'Rhona Vick,,25'], 'people'));
    expect((await server.person('Rhona Vick')).weeks).toEqual([[300, 300, 300, 300, 300, 0, 0]]);
    await undo(other);
    expect((await server.person('Rhona Vick')).weeks).toEqual(weeks);
  });

  it('keeps hours that follow from shifts, which is told', async () => {
    const { weeks, shifts } = await server.person('Wilf Ardley');
    const now = await begun(['name,telephone,hours a week', 'Wilf Ardley,01632 960 778,25'], 'people');
    const { body } = await ines.get(`/api/bring-ins/${now.id}/rows`).query({ which: 'alike', after: 0 }).expect(200);
    expect(body.rows[0]).toMatchObject({
      why: 'same name; its hours follow from shifts, and stay',
      diffs: [{ from: '01632 960 116', to: '01632 960 778' }],
    });
    await undo(await broughtIn(now));
    expect(await server.person('Wilf Ardley')).toMatchObject({ weeks, shifts, telephone: '01632 960 116' });
  });
});

describe('a list that is taken out', () => {
  it.each(['clients', 'people'])('of %s says nothing new when it is brought in again', async (kind) => {
    await ines
      .post('/api/clients')
      .send({
        ...{ name: '=HYPERLINK("x")', address: '-1 Long Lane\n+2', usualPersonId: null, notes: '@home', fields: {} },
        contacts: [
          ...[1, 2].map((n) => ({
            ...{ id: `01937000-0000-7000-8000-00000000e0${n}${kind.length}`, name: `Contact ${n}`, role: '' },
            ...{ email: '', telephone: '+44 1632 960 0', prefers: null },
          })),
        ],
      })
      .expect(200);
    const { text } = await ines.get(`/api/lists/${kind}`).expect(200);
    expect(text.split('\r\n').filter((line) => /(^|,)"?[=+@]/.test(line.replace(/^\uFEFF/, '')))).toEqual([]);
    const { id } = (await upload(text, { kind }).expect(200)).body;
    const { counts, rowCount, left } = await one(id);
    expect(left.filter(({ title }) => !title.startsWith('=HYPERLINK'))).toEqual([]);
    expect(counts.same + counts.left).toBe(rowCount);
    expect(counts.update + counts.new).toBe(0);
  });
});

describe('a list that names service plans', () => {
  it('says which there are, and once it is in, who is to be put on each: new ones and those who are here, but not who is on it', async () => {
    const [on] = await server.source.query<{ name: string }[]>(
      `select c.name from on_plan o join client c on c.id = o.client_id join service_plan p on p.id = o.plan_id
       where p.name = 'Resident berth' and o.off_on is null order by c.name limit 1`,
    );
    let now = await begun([
      'Holder,Plan',
      'Fenna Quillon,resident berth',
      'Jowan Trask,Residents',
      `${on?.name},Resident berth`,
      'Silas Dunnock,Resident Berth',
    ]);
    expect(now.columns.map(({ becomes }) => becomes)).toEqual(['name', 'plan']);
    expect(now.left.map(({ title, why }) => [title, why])).toEqual([]);
    const known = now.plans.find(({ planId }) => planId !== null);
    expect(now.plans.map(({ name, count, planId }) => [name.toLowerCase(), count, planId !== null])).toEqual([
      ['resident berth', 3, true],
      ['residents', 1, false],
    ]);
    const forPlan = () => ines.get(`/api/bring-ins/${now.id}/for-plan`).query({ plan: known?.planId });
    await forPlan().expect(409);
    now = await broughtIn(now);
    const { body } = await forPlan().expect(200);
    expect(body.clients.map(({ name }: { name: string }) => name)).toEqual(['Fenna Quillon', 'Silas Dunnock']);
    // And taken out as a list it stands there.
    const { text } = await ines.get('/api/lists/clients').expect(200);
    expect(text).toMatch(/usual person.+plan.+notes/);
    const at = text.indexOf(`\n${on?.name},`);
    expect(text.slice(at, at + 200)).toContain(',Resident berth,');
  });
});
