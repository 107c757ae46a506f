import { useState } from 'react';
import { useSWRConfig } from 'swr';
import { workspaceAddresses } from '../../../contract/addresses.ts';
import { type Category, DOTS } from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { addressOf, ask, ProblemError } from '../../kit/api.ts';
import { Dialog } from '../../kit/dialog.tsx';
import { DotMark } from '../../kit/tag.tsx';
import { DOT_WORDS } from './dot-words.ts';

/** The lists that a workspace keeps for its templates: categories with their colours, and types of work. */
export function ListsDialog({ onClose }: { readonly onClose: () => void }) {
  const workspace = useWorkspace();
  const { mutate } = useSWRConfig();
  const [categories, setCategories] = useState<readonly Category[]>(workspace.categories);
  const [workTypes, setWorkTypes] = useState(workspace.workTypes.join('\n'));
  const [problem, setProblem] = useState<string | null>(null);
  const change = (index: number, next: Partial<Category>) =>
    setCategories(categories.map((other, i) => (i === index ? { ...other, ...next } : other)));
  const save = async () => {
    const lines = workTypes
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
    try {
      const saved = await ask(workspaceAddresses.lists, {
        body: { categories: categories.filter(({ name }) => name.trim() !== ''), workTypes: lines },
      });
      await mutate(addressOf(workspaceAddresses.workspace), saved, { revalidate: false });
      sayDone('The lists are saved.');
      onClose();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error.message);
    }
  };
  return (
    <Dialog label="Categories and types of work" className="w-[520px] p-6" onClose={onClose}>
      <h2 className="text-title leading-7">Categories and types of work</h2>
      <p className="mb-2 text-row text-ink-2">A name that templates carry can’t be taken out or renamed here.</p>
      <div className="grid grid-cols-2 gap-6">
        <section>
          <h3 className="text-body leading-7 text-primary">Categories</h3>
          {categories.map(({ name, dot }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place; its name is being typed
            <div key={i} className="flex items-center gap-1.5 leading-8">
              <DotMark dot={dot} />
              <input
                className="blank min-w-0 flex-1"
                aria-label={`Category ${i + 1}`}
                maxLength={40}
                value={name}
                onChange={({ target }) => change(i, { name: target.value })}
              />
              <select
                className="blank w-[92px]"
                aria-label={`Colour of category ${i + 1}`}
                value={dot}
                onChange={({ target }) => change(i, { dot: DOTS.find((one) => one === target.value) ?? dot })}
              >
                {DOTS.map((one) => (
                  <option key={one} value={one}>
                    {DOT_WORDS[one]}
                  </option>
                ))}
              </select>
            </div>
          ))}
          <button
            type="button"
            className="link-line leading-6"
            onClick={() =>
              setCategories([...categories, { name: '', dot: DOTS[categories.length % DOTS.length] ?? 'ink' }])
            }
          >
            Add a category
          </button>
        </section>
        <section>
          <h3 className="text-body leading-7 text-primary">Types of work</h3>
          <textarea
            className="blank h-44 w-full whitespace-pre-wrap py-1 leading-6"
            aria-label="Types of work, one a line"
            value={workTypes}
            onChange={({ target }) => setWorkTypes(target.value)}
          />
          <p className="text-note text-ink-2">one a line</p>
        </section>
      </div>
      <p role="alert" className="field-error">
        {problem}
      </p>
      <div className="mt-3 flex gap-3">
        <button type="button" className="btn btn-primary" onClick={() => void save()}>
          Save the lists
        </button>
        <button type="button" className="btn" onClick={onClose}>
          Not now
        </button>
      </div>
    </Dialog>
  );
}
