import type { ReactNode } from 'react';

interface FigureProps {
  readonly words: string;
  /** Nothing to look at: not bold. */
  readonly isQuiet?: boolean;
  readonly className?: string;
  /** The figure; a smaller part of it in `small`. */
  readonly children: ReactNode;
}

/** A figure beside others, a hairline between them. */
export function Figure({ words, isQuiet = false, className = '', children }: FigureProps) {
  return (
    <div className={`border-l border-line-2 pl-3 ${className}`}>
      <b
        className={`block font-head text-[30px] leading-8 font-stretch-[80%] whitespace-nowrap normal-nums [&_small]:text-[18px] [&_small]:leading-0 [&_small]:font-semibold ${isQuiet ? 'font-normal text-ink-2' : 'font-bold'}`}
      >
        {children}
      </b>
      <span className="text-note leading-4 whitespace-nowrap text-ink-2">{words}</span>
    </div>
  );
}
