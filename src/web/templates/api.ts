import { useMemo } from 'react';
import { type Template, type TemplateInput, templateEndpoints } from '../../contract/index.ts';
import { useAnswer, useRefresh, useWholeList } from '../answer.ts';
import { type Answer, addressOf, ask } from '../api.ts';
import { sayDone } from '../shell/toast.tsx';

type Page = Answer<typeof templateEndpoints.list>;

/** All templates of the workspace, page by page. */
export function useTemplates() {
  const { data, error, mutate } = useWholeList<Page>((after) =>
    addressOf(templateEndpoints.list, { query: after === null ? {} : { after } }),
  );
  const templates = useMemo(() => data?.flatMap((page) => page.templates), [data]);
  return { templates, error, retry: () => void mutate() };
}

export function useTemplate(templateId: string | null) {
  return useAnswer(templateEndpoints.one, templateId === null ? null : { params: { templateId } });
}

export function useSaveTemplate() {
  const refresh = useRefresh();
  /** @throws ProblemError when it is refused */
  return async (input: TemplateInput & { version: number }, templateId: string | null): Promise<Template> => {
    const { template } =
      templateId === null
        ? await ask(templateEndpoints.create, { body: input })
        : await ask(templateEndpoints.change, { params: { templateId }, body: input });
    void refresh('/templates', '/schedules');
    sayDone(
      templateId !== null
        ? `Saved “${template.name}”. Tasks made from now on say so; those made already keep their text.`
        : `“${template.name}” is in the library.`,
    );
    return template;
  };
}
