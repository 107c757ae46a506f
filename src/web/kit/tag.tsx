import type { Dot } from '../../contract/index.ts';
import { useWorkspace } from '../app/shell/workspace.tsx';

const HUE: Record<Dot, string> = {
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
export function Tag({ category, dot = null }: { readonly category: string | null; readonly dot?: Dot | null }) {
  const { categories } = useWorkspace();
  if (category === null) return dot && <DotMark dot={dot} />;
  return (
    <span className="inline-flex items-center gap-1.5 rounded-field border border-line-2 px-1.5 text-note leading-4.5 whitespace-nowrap">
      <DotMark dot={dot ?? categories.find(({ name }) => name === category)?.dot ?? 'ink'} />
      {category}
    </span>
  );
}

/** A dot in one of the hues, filled or hollow. */
export function DotMark({ dot }: { readonly dot: Dot }) {
  const style = dot.endsWith('Ring') ? { boxShadow: `inset 0 0 0 1.5px ${HUE[dot]}` } : { background: HUE[dot] };
  return <i className="inline-block h-1.5 w-1.5 flex-none rounded-full" style={style} />;
}
