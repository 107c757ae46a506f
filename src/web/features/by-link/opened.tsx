import type { OpenedLink } from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { sayDay } from '../../kit/ways.ts';

export type Opened = Extract<OpenedLink, { kind: 'open' }>;

/** Whom to ring, and when somebody answers. */
export function Rings({ ring, words }: { readonly ring: Opened['ring']; readonly words: string }) {
  if (ring === null) return null;
  const { name, telephone, answered } = ring;
  return (
    <p className="text-[15px] leading-5">
      {words} Ring {name === null ? '' : `${name}, `}
      <a className="link-line whitespace-nowrap" href={`tel:${telephone.replace(/[^\d+]/g, '')}`}>
        {telephone}
      </a>
      {answered === '' ? '.' : `, ${answered}.`}
    </p>
  );
}

export function WorksUntil({ opened, children = '' }: { readonly opened: Opened; readonly children?: string }) {
  return (
    <p className="mt-2 text-row leading-4.5 text-ink-2">
      This link is only for you and works until {sayDay(dayOfIso(opened.worksUntil), dayOfIso(opened.today))}.{children}
    </p>
  );
}
