import { useMemo } from 'react';
import { templateAddresses } from '../../../contract/addresses.ts';
import type { Reach, Template, TemplateInput, TemplateLine } from '../../../contract/index.ts';
import { sayDone, sayTrouble } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh, useWholeList } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';

type Page = Answer<typeof templateAddresses.list>;

/** All templates of the workspace, page by page. */
export function useTemplates() {
  const { data, error, mutate } = useWholeList<Page>((after) =>
    addressOf(templateAddresses.list, { query: after === null ? {} : { after } }),
  );
  const templates = useMemo(() => data?.flatMap((page) => page.templates), [data]);
  return { templates, error, retry: () => void mutate() };
}

export function useTemplate(templateId: string | null) {
  return useAnswer(templateAddresses.one, templateId === null ? null : { params: { templateId } });
}

/** What a new template was begun from. */
export type Like = { readonly templateId: string } | { readonly taskId: string } | null;

export function useTemplateActions() {
  const refresh = useRefresh();
  const everywhere = () => refresh('/templates', '/schedules', '/tideline', '/people/');
  return {
    /** @throws ProblemError when it is refused */
    impact: (input: TemplateInput & { version: number }, templateId: string, reach: Reach) =>
      ask(templateAddresses.impact, { params: { templateId }, body: { ...input, reach } }),
    /** @throws ProblemError when it is refused */
    save: async (
      { version, ...input }: TemplateInput & { version: number },
      templateId: string | null,
      like: Like,
      reach?: Reach,
    ): Promise<Template> => {
      const { template, changeId } =
        templateId === null
          ? await ask(templateAddresses.create, { body: { template: input, like } })
          : await ask(templateAddresses.change, {
              params: { templateId },
              body: { ...input, version, ...(reach ? { reach } : {}) },
            });
      void everywhere();
      sayDone(templateId === null ? `“${template.name}” is in the library.` : `Saved “${template.name}”.`, changeId);
      return template;
    },
    favourite: async ({ id: templateId, isFavourite }: TemplateLine) => {
      try {
        await ask(templateAddresses.favourite, { params: { templateId }, body: { favourite: !isFavourite } });
        void refresh('/templates');
      } catch (error) {
        sayTrouble(error);
      }
    },
    archive: async ({ id: templateId, name }: Template, archived: boolean) => {
      try {
        const { changeId } = await ask(templateAddresses.archive, { params: { templateId }, body: { archived } });
        sayDone(archived ? `Archived “${name}”: it makes nothing more.` : `“${name}” is in use again.`, changeId);
        void everywhere();
        return true;
      } catch (error) {
        sayTrouble(error);
        return false;
      }
    },
    remove: async ({ id: templateId, name }: Template) => {
      try {
        const { changeId } = await ask(templateAddresses.remove, { params: { templateId } });
        sayDone(`Deleted “${name}”.`, changeId);
        void everywhere();
        return true;
      } catch (error) {
        sayTrouble(error);
        return false;
      }
    },
  };
}
