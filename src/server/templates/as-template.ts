import type { TemplateInput } from '../../contract/index.ts';
import { type DefaultRule, dayOfIso, givenTo, patternOfTitle, type Step } from '../../core/index.ts';
import { Asset, Client } from '../clients/index.ts';
import { filesOfTasks, filesOfTemplate } from '../files/stored/index.ts';
import type { Scope } from '../platform/scope.ts';
import { findTasks, ofSet, oneWhole, type Task } from '../tasks/stored/index.ts';
import { Template } from './stored/index.ts';

/**
 * A task as a template to begin from: its text, steps, proof and settings. The names and dates in its title become tokens;
 * the other tasks of its set become steps with the days between them.
 */
export async function taskAsTemplate(scope: Scope, taskId: string): Promise<TemplateInput> {
  const task = await oneWhole(scope, taskId);
  const set = (await findTasks(scope, ofSet(task))).sort((a, b) => a.setIndex - b.setIndex);
  const main = set.find(({ stepKey }) => stepKey === '') ?? task;
  const template = task.templateId === null ? null : await scope.one(Template, task.templateId, 'template');
  const askedBy = new Map(template?.steps.flatMap((step) => (step.kind === 'task' ? [[step.key, step.tickets]] : [])));
  const people = await scope.peopleNames();
  const client = main.clientId === null ? null : await scope.one(Client, main.clientId, 'client');
  const asset = main.assetId === null ? null : await scope.one(Asset, main.assetId, 'asset');
  const patternOf = (one: Task) =>
    patternOfTitle(one.title, {
      on: dayOfIso(one.setOn),
      client: client?.name ?? null,
      asset: asset?.name ?? null,
      person: one.assigneeId === null ? null : (people.get(one.assigneeId) ?? null),
    });
  const checks = (one: Task): Step[] => one.checkLines.map((line) => ({ kind: 'check', ...line }));
  const steps: Step[] = set.flatMap((one) =>
    one.id === main.id
      ? []
      : [
          {
            kind: 'task',
            key: one.stepKey === '' ? `step-${one.setIndex}` : one.stepKey,
            titlePattern: patternOf(one),
            note: one.brief,
            offset: { amount: dayOfIso(one.workOn) - dayOfIso(main.workOn), unit: 'day' },
            startTime: one.startTime,
            dueTime: one.dueTime,
            assignee: assigneeOf(one, main),
            estimateMinutes: one.estimateMinutes,
            demands: one.demands,
            signOff: one.signOff,
            tickets: askedBy.get(one.stepKey),
          },
          ...checks(one),
        ],
  );
  const files = [
    ...((await filesOfTasks(scope, [main.id])).get(main.id) ?? []).filter(({ demand }) => demand === null),
    ...(template ? await filesOfTemplate(scope, template.id) : []),
  ];
  return {
    name: template ? `${template.name}, from a task`.slice(0, 120) : main.title.slice(0, 120),
    summary: template?.summary ?? '',
    titlePattern: patternOf(main),
    category: template?.category ?? null,
    dot: template?.dot ?? null,
    instructions: main.instructions,
    links: main.links,
    priority: main.priority,
    workType: main.workType,
    signOff: main.signOff,
    finishWithLast: main.finishWithLast,
    numbered: main.numbered,
    demands: main.demands,
    estimateMinutes: main.estimateMinutes,
    assignment: defaultOf(main),
    tickets: template?.tickets ?? [],
    escalation: template?.escalation ?? null,
    steps: [...checks(main), ...steps],
    fileIds: files.map(({ id }) => id),
  };
}

/** Whoever has it, or any one of whom may take it. */
function defaultOf({ assigneeId, offeredTo }: Task): DefaultRule {
  if (assigneeId !== null || offeredTo === null || offeredTo.of === 'people') return givenTo(assigneeId);
  return offeredTo.of === 'client' ? { v: 1, kind: 'client' } : { v: 1, kind: 'anyOf', group: offeredTo };
}

function assigneeOf(one: Task, main: Task): Extract<Step, { kind: 'task' }>['assignee'] {
  if (one.assigneeId === null && one.offeredTo !== null && one.offeredTo.of !== 'people')
    return one.offeredTo.of === 'client' ? { by: 'client' } : { by: 'anyOf', group: one.offeredTo };
  if (one.assigneeId === main.assigneeId) return { by: 'set' };
  return one.assigneeId === null ? { by: 'nobody' } : { by: 'person', personId: one.assigneeId };
}
