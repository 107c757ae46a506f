import { invalid } from '../../platform/refusal.ts';
import type { Scope } from '../../platform/scope.ts';
import { Template } from '../../templates/stored/index.ts';
import { StoredFile } from './entity.ts';
import { IN_TEXT } from './queries.ts';

/** Where a template may take files from, besides those that were sent for it. */
export type FileSource = { readonly templateId: string } | { readonly taskId: string } | null;

/**
 * Gives a template exactly these files, and the pictures of its text. Files sent for it are taken over, those of what it
 * was begun from are copied, and what it has no more is removed.
 * @returns by which of its own each of the given ids is replaced, where it is a copy
 */
export async function setTemplateFiles(
  scope: Scope,
  templateId: string,
  given: { readonly listed: readonly string[]; readonly inText: readonly string[] },
  source: FileSource,
): Promise<ReadonlyMap<string, string>> {
  const copies = new Map<string, string>();
  const wanted = [
    ...given.listed.map((id) => ({ id, demandKey: null })),
    ...given.inText.filter((id) => !given.listed.includes(id)).map((id) => ({ id, demandKey: IN_TEXT })),
  ];
  const own = new Set<string>();
  for (const { id, demandKey } of wanted) {
    const [file] = await scope.find(StoredFile, { id });
    if (!file) throw invalid([{ path: 'fileIds', message: 'One of the files is not there any more: add it again.' }]);
    if (file.templateId === templateId) {
      own.add(id);
      if (file.removedAt !== null || file.demandKey !== demandKey)
        await scope.save(StoredFile, id, { removedAt: null, demandKey });
    } else if (file.templateId === null && file.taskId === null && file.uploadedBy === (scope.person?.id ?? null)) {
      own.add(id);
      await scope.save(StoredFile, id, { templateId, demandKey });
    } else if (isFrom(file, source) || (await isShownBy(scope, file))) {
      const copy = await scope.insert(StoredFile, {
        ...file,
        id: scope.newId(),
        uploadKey: scope.newId(),
        templateId,
        taskId: null,
        demandKey,
        isKept: false,
        removedAt: null,
      });
      own.add(copy.id);
      copies.set(id, copy.id);
    } else throw invalid([{ path: 'fileIds', message: 'One of the files belongs to something else: add it again.' }]);
  }
  await scope.sql(
    `update file set removed_at = $3 where workspace_id = $1 and template_id = $2 and removed_at is null
       and demand_key is distinct from '${IN_TEXT}' and not id = any($4::uuid[])`,
    [templateId, scope.instant, [...own]],
  );
  return copies;
}

function isFrom(file: StoredFile, source: FileSource): boolean {
  if (source === null) return false;
  return 'templateId' in source ? file.templateId === source.templateId : file.taskId === source.taskId;
}

/** Pictures of instructions travel with the text: pasted from one template into another they are copied. */
async function isShownBy(scope: Scope, file: StoredFile): Promise<boolean> {
  if (file.templateId === null || file.demandKey !== IN_TEXT) return false;
  await scope.one(Template, file.templateId, 'template');
  return true;
}
