import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ACTIONS, actionKind, type Subject, silentActions } from '../platform/changes/actions.ts';
import { type TestServer, testServer } from '../testing/test-server.ts';
import { fieldType, IN_ORDER, revived, SUBJECTS } from './subjects.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

describe('what changes are of', () => {
  it('is known of every action that the demo has stored', async () => {
    const stored = await server.source.query<{ subject: Subject; action: string }[]>(
      'select distinct subject, action from change',
    );
    expect(stored.length).toBeGreaterThan(3);
    for (const { subject, action } of stored) expect(actionKind(subject, action).says).toBeTruthy();
    expect(() => actionKind('task', 'conjured')).toThrow('Nothing is known of “conjured” of a task.');
  });

  it('leaves out of the history only what something else tells of', () => {
    expect(Object.keys(ACTIONS).flatMap((subject) => silentActions(subject as Subject))).toEqual(['proof']);
  });

  it('names fields by what they are kept in, not by how they are called', () => {
    expect(fieldType('task', 'dueOn')).toBe('date');
    expect(fieldType('task', 'doneAt')).toBe('timestamptz');
    expect(fieldType('schedule', 'deletedAt')).toBe('timestamptz');
    expect(fieldType('task', 'assigneeId')).toBe('uuid');
    expect(fieldType('task', 'row')).toBeUndefined();
    expect(fieldType('several', 'dueOn')).toBeUndefined();
  });

  it('has instants as dates again, and leaves texts that look like them alone', () => {
    const at = '2026-11-24T10:40:00.000Z';
    const { fields } = revived({
      subject: 'task',
      fields: { doneAt: { from: null, to: at }, note: { from: at, to: '' }, dueOn: { from: '2026-11-24', to: null } },
    });
    expect(fields['doneAt']).toEqual({ from: null, to: new Date(at) });
    expect(fields['note']).toEqual({ from: at, to: '' });
    expect(fields['dueOn']).toEqual({ from: '2026-11-24', to: null });
  });

  it('says of each column whether its change is told', () => {
    const { entityMetadatas } = server.source;
    for (const subject of IN_ORDER) {
      const { telling, entity } = SUBJECTS[subject];
      const columns = entityMetadatas.find(({ target }) => target === entity)?.columns ?? [];
      const fields = columns
        .map(({ propertyName }) => propertyName)
        .filter((name) => !['workspaceId', 'id'].includes(name));
      expect(fields.length).toBeGreaterThan(5);
      expect(Object.keys(telling)).toEqual(expect.arrayContaining(fields));
    }
  });
});
