import type { Task, Template } from '../../contract/index.ts';
import type { Demand, Step } from '../../core/index.ts';
import type { Agent, TestServer } from './test-server.ts';

/** A check line of a template, as tests write it. */
export const checkLine = (key: string, demands: readonly Demand[] = []): Step => ({
  kind: 'check',
  key,
  text: `Line ${key}`,
  note: '',
  demands,
});

/** A task of its own, so many days from the set's date. */
export const ownTask = (key: string, amount: number, rest: Partial<Extract<Step, { kind: 'task' }>> = {}): Step => ({
  kind: 'task',
  key,
  titlePattern: `Task ${key}`,
  note: '',
  offset: { amount, unit: 'day' },
  startTime: null,
  dueTime: null,
  assignee: { by: 'set' },
  estimateMinutes: 10,
  demands: [],
  signOff: null,
  ...rest,
});

/** A template by its name, or the first there is. */
export async function templateNamed({ source }: TestServer, by: Agent, name: string | null = null): Promise<Template> {
  const [found] = await source.query<{ id: string }[]>(
    `select t.id from template t join workspace w on w.id = t.workspace_id where w.name = 'Tern Quay' and t.archived_at is null
       and ($1::text is null or t.name = $1) order by lower(t.name), t.id limit 1`,
    [name],
  );
  return (await by.get(`/api/templates/${found?.id}`).expect(200)).body;
}

/** The id of a new template with these steps and whatever else. */
export async function newTemplate(manager: Agent, rest: object): Promise<string> {
  const template = {
    name: 'Test',
    titlePattern: 'Test',
    category: null,
    instructions: '',
    estimateMinutes: 30,
    ...rest,
  };
  const { body } = await manager.post('/api/templates').send({ template, like: null }).expect(200);
  return body.template.id;
}

/** Starts a template by hand on a day; the ids of its tasks by their steps' keys. */
export async function startedTasks(
  by: Agent,
  templateId: string,
  assigneeId: string | null,
  parts: readonly { readonly step: string; readonly on: string }[] = [{ step: '', on: '2026-11-24' }],
): Promise<string[]> {
  const { body } = await by
    .post(`/api/templates/${templateId}/start`)
    .send({
      on: '2026-11-24',
      clientId: null,
      assetId: null,
      assigneeId,
      special: '',
      parts: parts.map((part) => ({ ...part, startTime: null, dueTime: null, assigneeId })),
    })
    .expect(200);
  return body.tasks.map(({ id }: { id: string }) => id);
}

/** Skips, deletes, gives or moves one task, as its sheet does; gives the answer. */
export async function doTo(by: Agent, taskId: string | undefined, deed: object, status = 200, path = '') {
  const { body: task } = await by.get(`/api/tasks/${taskId}`);
  const { body } = await by
    .post(`/api/tasks/changes${path}`)
    .send({ tasks: [{ id: taskId, version: task.version ?? 1 }], deed })
    .expect(status);
  return body;
}

/** An edit of a task that changes nothing but what is said besides. */
export async function editOf(by: Agent, id: string, rest: object) {
  const task: Task = (await by.get(`/api/tasks/${id}`).expect(200)).body;
  const { title, instructions, dueOn, startTime, dueTime, estimateMinutes, priority, version } = task;
  const { on: workOn, assignee } = task;
  return {
    ...{ title, instructions, workOn, dueOn, startTime, dueTime, estimateMinutes, priority, version },
    assigneeId: assignee?.id ?? null,
    ...rest,
  };
}
