import type { Scope } from '../scope.ts';
import type { Workspace } from './workspace.ts';

/** Lists of a workspace that a name joins by being used. */
type Lists = Pick<Workspace, 'roles' | 'teams' | 'tickets'>;

/** Names that are new join the lists of the workspace. */
export async function joinLists(
  scope: Scope,
  names: { readonly [list in keyof Lists]?: readonly string[] },
): Promise<void> {
  const joined = (of: Lists) =>
    Object.fromEntries(
      (Object.keys(names) as (keyof Lists)[]).flatMap((list) => {
        const news = (names[list] ?? []).filter((name) => !of[list].includes(name));
        return news.length === 0 ? [] : [[list, [...of[list], ...new Set(news)]]];
      }),
    ) as Partial<Lists>;
  if (Object.keys(joined(scope.workspace)).length === 0) return;
  await scope.saveWorkspace(joined(await scope.lockedWorkspace()));
  await scope.tell('workspace');
}
