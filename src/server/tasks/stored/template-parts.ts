import { createHash } from 'node:crypto';
import { In } from 'typeorm';
import type { Priority } from '../../../contract/index.ts';
import { setParts } from '../../../core/index.ts';
import type { Scope } from '../../platform/scope.ts';
import { Template } from '../../templates/stored/index.ts';
import { type Content, type ContentMarks, contentMarks } from './content.ts';
import type { MadeTask } from './made-task.ts';

/** What the task of one part of a template says, but for what its schedule has of its own. */
export interface Part {
  readonly setIndex: number;
  readonly priority: Priority;
  readonly content: Content;
}

/** The parts of the templates of some tasks, by template and step. */
export async function partsBehind(scope: Scope, tasks: readonly MadeTask[]): Promise<ReadonlyMap<string, Part>> {
  const ids = [...new Set(tasks.map(({ templateId }) => templateId))];
  const templates = await scope.find(Template, { id: In(ids) });
  return new Map(
    templates.flatMap((template) =>
      setParts(template).map(({ key, note, checkLines, demands, signOff }, setIndex) => {
        const { instructions, links, workType, finishWithLast, numbered, priority } = template;
        const content = {
          ...{ instructions, links, workType, finishWithLast, numbered },
          ...{ brief: note, checkLines, demands, signOff },
        };
        return [partKey(template.id, key), { setIndex, priority, content }] as const;
      }),
    ),
  );
}

export const partKey = (templateId: string, stepKey: string) => `${templateId} ${stepKey}`;

/** What a task says, to compare it by: single fields as far as they can be changed by hand, all the rest as one mark. */
export interface TaskContent extends ContentMarks {
  readonly priority: Priority;
}

/** What each part of a template has its tasks say now, by template and step. */
export async function contentOfParts(
  scope: Scope,
  tasks: readonly MadeTask[],
): Promise<ReadonlyMap<string, TaskContent>> {
  if (tasks.length === 0) return new Map();
  const parts = [...(await partsBehind(scope, tasks))];
  const marks = await contentMarks(
    scope,
    parts.map(([, { content }]) => content),
  );
  return new Map(
    parts.flatMap(([key, { priority }], i) => {
      const mark = marks[i];
      return mark ? [[key, { ...mark, priority }]] : [];
    }),
  );
}

/** What a made task says: what its schedule has of its own, else what its part of the template says. */
export function saidBy(task: MadeTask, contents: ReadonlyMap<string, TaskContent>): TaskContent {
  const content = contents.get(partKey(task.templateId, task.stepKey));
  if (!content) throw new Error(`There is no content for step “${task.stepKey}” of template ${task.templateId}.`);
  return {
    content: content.content,
    instructions: task.instructions === null ? content.instructions : md5(task.instructions),
    priority: task.priority ?? content.priority,
  };
}

const md5 = (text: string) => createHash('md5').update(text).digest('hex');
