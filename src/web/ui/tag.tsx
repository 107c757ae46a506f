import type { Category } from '../../contract/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';

const HUE: Record<Category['dot'], string> = {
  petrol: 'var(--color-primary)',
  blue: 'var(--color-info)',
  green: 'var(--color-success)',
  ink: 'var(--ink)',
  petrolRing: 'var(--color-primary)',
  blueRing: 'var(--color-info)',
  greenRing: 'var(--color-success)',
  inkRing: 'var(--ink)',
};

/** A category: a small outlined word with a dot, filled or hollow. */
export function Tag({ category }: { readonly category: string | null }) {
  const { categories } = useWorkspace();
  if (category === null) return null;
  const dot = categories.find(({ name }) => name === category)?.dot ?? 'ink';
  const style = dot.endsWith('Ring') ? { boxShadow: `inset 0 0 0 1.5px ${HUE[dot]}` } : { background: HUE[dot] };
  return (
    <span className="tag">
      <i style={style} />
      {category}
    </span>
  );
}
