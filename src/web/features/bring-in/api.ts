import { useCallback } from 'react';
import { bringInAddresses } from '../../../contract/addresses.ts';
import { type BringIn, type BringInCounts, type Impact, MOST_BRING_BYTES, problemOf } from '../../../contract/index.ts';
import { BRING_WORDS, type BringKind, sayLines } from '../../../core/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { ask, type Input, ProblemError } from '../../kit/api.ts';
import { sendForm } from '../../kit/send-form.ts';

export const useBringIns = () => useAnswer(bringInAddresses.list, {});
export const useBringIn = (bringInId: string) => useAnswer(bringInAddresses.one, { params: { bringInId } });

/** Where what is brought in is found afterwards. */
export const PLACES: Readonly<Record<BringKind, string>> = {
  clients: '/clients',
  people: '/team',
  schedules: '/schedules',
  tasks: '/tasks',
  templates: '/templates',
  history: '/logbook',
  calendar: '/schedules',
};

/**
 * Sends a file to be read.
 * @throws ProblemError when it is refused
 */
export async function sendList(file: File, kind: BringKind, onProgress: (share: number) => void): Promise<string> {
  if (file.size > MOST_BRING_BYTES)
    throw new ProblemError(
      problemOf(
        'too-large',
        `This file is larger than ${MOST_BRING_BYTES / 1024 / 1024} MB. Split it, and bring in one part after the other.`,
      ),
    );
  const form = new FormData();
  form.set('kind', kind);
  form.set('file', file);
  return (await sendForm<{ id: string }>('/bring-ins', form, onProgress)).id;
}

export type Settling = Omit<NonNullable<Input<typeof bringInAddresses.settle>['body']>, 'version'>;

/** Ways to go on with a file; each throws a ProblemError when it is refused. */
export function useBringInActions(bringInId: string) {
  const refresh = useRefresh();
  const { mutate } = useBringIn(bringInId);
  const params = { bringInId };
  const settle = useCallback(
    async (version: number, input: Settling) => {
      const answer = await ask(bringInAddresses.settle, { params: { bringInId }, body: { version, ...input } });
      await mutate(answer, { revalidate: false });
    },
    [bringInId, mutate],
  );
  return {
    settle,
    impactOf: (version: number): Promise<Impact> => ask(bringInAddresses.impact, { params, body: { version } }),
    again: () => mutate(),
    bringIn: async (version: number, counts: BringInCounts): Promise<void> => {
      const answer = await ask(bringInAddresses.bringIn, { params, body: { version, counts } });
      await mutate(answer, { revalidate: false });
      await refresh(...WRITTEN);
      sayDone(sayBroughtIn(answer.bringIn), answer.bringIn.changeId);
    },
    discard: async (): Promise<void> => {
      await ask(bringInAddresses.discard, { params });
      await refresh('/bring-ins');
      sayDone('The file is let go. Nothing of it was written.');
    },
  };
}

/** What may show something else once a file is brought in. */
const WRITTEN = [
  ...['/clients', '/assets', '/subjects', '/team', '/workspace', '/bring-ins'],
  ...['/schedules', '/templates', '/tasks', '/task-list', '/logbook', '/tideline'],
];

export function sayBroughtIn({ kind, counts }: Pick<BringIn, 'kind' | 'counts'>): string {
  const of = kind === 'calendar' ? '' : ` of ${BRING_WORDS[kind].many}`;
  const brought = counts.new > 0 ? `Brought in ${sayLines(kind, counts.new)}${of}` : '';
  const updated = counts.update > 0 ? `brought ${counts.update} up to date` : '';
  const said = [brought, updated].filter(Boolean).join(', ');
  return `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
}
