import { useState } from 'react';
import { findAddresses } from '../../../contract/addresses.ts';
import { MOST_FOUND, NONE_OF_THEM } from '../../../contract/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useAnswer } from '../../kit/answer.ts';
import { Picker, type PickerOption } from '../../kit/picker.tsx';
import { useSubjects } from '../clients/api.ts';
import { useSites } from '../clients/directory-api.ts';

/** What a list of tasks can be narrowed down to beside the words that always stand in its head, as the address calls it. */
export const NARROWINGS = ['client', 'asset', 'site', 'template', 'schedule', 'workType', 'made', 'offered'] as const;
export type Narrowing = (typeof NARROWINGS)[number];

/** What may be asked besides without a name of its own, each told by its words. */
export const MADE_WORDS = { 'by hand': 'made by hand', 'by a schedule': 'made by a schedule' } as const;
export const OFFERED_WORDS = {
  no: 'offered to nobody',
  yes: 'offered to several',
  client: 'for clients to do',
} as const;

interface NarrowByProps {
  /** Of these alone. */
  readonly by: readonly Narrowing[];
  /** Whether it may be narrowed down to those without as well. */
  readonly hasNone?: boolean;
  /** What it is called. */
  readonly words?: string;
  readonly onChoose: (values: Readonly<Record<string, string>>) => void;
}

/** One more thing to narrow a list down to, looked up by name: shown as a word beside the others once it is chosen. */
export function NarrowBy({ by, hasNone = true, words: name = 'only …', onChoose }: NarrowByProps) {
  const { name: workspace, workTypes } = useWorkspace();
  const [typed, setTyped] = useState<string | null>(null);
  const wants = (...some: readonly Narrowing[]) => some.some((one) => by.includes(one));
  const words = typed?.trim() ? typed : null;
  const subjects = useSubjects(wants('client', 'asset') ? words : null);
  const sites = useSites(wants('site') ? typed : null);
  const found = useAnswer(
    findAddresses.find,
    words !== null && wants('template', 'schedule') ? { query: { q: words.slice(0, 100) } } : null,
  );
  // Of each kind the first alone are told.
  const isMore =
    subjects.data?.isMore ||
    sites.data?.more ||
    [found.data?.templates, found.data?.schedules].some((some) => some !== undefined && some.length >= MOST_FOUND);
  const option = (of: Narrowing, value: string, rest: Omit<PickerOption, 'key'>) =>
    by.includes(of) ? [{ ...rest, key: `${of} ${value}` }] : [];
  const options: readonly PickerOption[] = [
    ...(hasNone
      ? [
          ...option('client', NONE_OF_THEM, { name: `for ${workspace} itself`, detail: 'no client', group: 'without' }),
          ...option('asset', NONE_OF_THEM, { name: 'without an asset', group: 'without' }),
          ...option('template', NONE_OF_THEM, { name: 'without a template', group: 'without' }),
        ]
      : []),
    ...Object.entries(MADE_WORDS).flatMap(([value, name]) => option('made', value, { name, group: 'how they came' })),
    ...Object.entries(OFFERED_WORDS).flatMap(([value, name]) =>
      option('offered', value, { name, group: 'how they came' }),
    ),
    ...workTypes.flatMap((name) => option('workType', name, { name, group: 'types of work' })),
    ...(sites.data?.assets ?? []).flatMap(({ id, name, place }) =>
      option('site', id, { name: `all at ${name}`, detail: place, group: 'sites' }),
    ),
    ...(subjects.data?.subjects ?? []).flatMap(({ clientId, assetId, name, detail, tag }) =>
      option(assetId === null ? 'client' : 'asset', assetId ?? clientId ?? NONE_OF_THEM, {
        ...{ name, detail, alsoBy: tag === null ? [] : [tag] },
        group: assetId === null ? 'clients' : 'assets',
      }),
    ),
    ...(found.data?.templates ?? []).flatMap(({ id, name, detail }) =>
      option('template', id, { name, detail, group: 'templates' }),
    ),
    ...(found.data?.schedules ?? []).flatMap(({ id, name, detail }) =>
      option('schedule', id, { name, detail, group: 'schedules' }),
    ),
  ];
  return (
    <Picker
      label={name[0]?.toUpperCase() + name.slice(1)}
      look="word"
      placeholder={name}
      chosen=""
      options={options}
      onType={setTyped}
      isLooking={subjects.isLoading || sites.isLoading || found.isLoading}
      trouble={(subjects.error ?? sites.error ?? found.error)?.message}
      below={
        words === null
          ? `Type the name of ${sayKinds(by)}.`
          : isMore
            ? 'There are more of the name: type more of it to find them.'
            : undefined
      }
      onChoose={(key) => {
        const at = key.indexOf(' ');
        onChoose({ [key.slice(0, at)]: key.slice(at + 1) });
      }}
    />
  );
}

const KIND_WORDS: Readonly<Partial<Record<Narrowing, string>>> = {
  client: 'a client',
  asset: 'an asset',
  template: 'a template',
  schedule: 'a schedule',
};

function sayKinds(by: readonly Narrowing[]): string {
  const kinds = by.flatMap((one) => KIND_WORDS[one] ?? []);
  return [kinds.slice(0, -1).join(', '), kinds.at(-1)].filter(Boolean).join(' or ');
}
