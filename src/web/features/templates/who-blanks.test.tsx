import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { type DefaultRule, givenTo, type StepAssignee } from '../../../core/index.ts';
import { NADIA, show } from '../../testing/show.tsx';
import { DefaultWho } from './default-who.tsx';
import { StepWho } from './step-who.tsx';
import { FRESH, templateDraftSchema } from './template-draft.ts';

const PLACE = { roles: ['yard', 'dock crew'], teams: ['Lee Quay'] };
const YARD = { of: 'role', role: 'yard' } as const;

describe('who does it by default', () => {
  async function shown(first: DefaultRule) {
    const now = { rule: first };
    function Blank() {
      const [rule, setRule] = useState(first);
      now.rule = rule;
      return <DefaultWho rule={rule} onChange={setRule} />;
    }
    await show(<Blank />, { workspace: PLACE });
    return { now, user: userEvent.setup() };
  }

  it.each<[string, DefaultRule]>([
    ['Nadia Orme', givenTo(NADIA.id)],
    ['any of yard', { v: 1, kind: 'anyOf', group: YARD }],
    ['any of yard on shift', { v: 1, kind: 'anyOf', group: { ...YARD, onShift: true } }],
    ['each of team Lee Quay', { v: 1, kind: 'eachOf', group: { of: 'team', team: 'Lee Quay' }, daysOffToo: true }],
    ['least to do of everyone', { v: 1, kind: 'leastToDo', group: { of: 'everyone' } }],
    ['nobody yet', { v: 1, kind: 'nobody' }],
  ])('is chosen in words: %s', async (words, rule) => {
    const { now, user } = await shown({
      v: 1,
      kind: 'usualPerson',
      otherwiseId: NADIA.id,
      daysOffToo: false,
      cover: 'nobody',
    });
    await user.click(screen.getByRole('button', { name: /^Who does it by default: the client’s usual person/ }));
    await user.keyboard(words);
    await user.click(screen.getAllByRole('option', { name: new RegExp(`^${words}`) })[0] as HTMLElement);
    expect(now.rule).toEqual(rule);
  });

  it('keeps what else it says where the same is chosen again, and a role that has left the lists', async () => {
    const rule: DefaultRule = { v: 1, kind: 'eachOf', group: { of: 'role', role: 'divers' }, daysOffToo: false };
    const { now, user } = await shown(rule);
    await user.click(screen.getByRole('button', { name: 'Who does it by default: each of divers' }));
    await user.click(screen.getByRole('option', { name: 'each of divers' }));
    expect(now.rule).toBe(rule);
  });
});

describe('who does a task of a set', () => {
  it('is chosen in words, and told by them', async () => {
    const user = userEvent.setup();
    const chosen: StepAssignee[] = [];
    function Blank() {
      const [assignee, setAssignee] = useState<StepAssignee>({ by: 'set' });
      return (
        <StepWho
          label="Task 1: who"
          assignee={assignee}
          onChange={(next) => {
            chosen.push(next);
            setAssignee(next);
          }}
        />
      );
    }
    await show(<Blank />, { workspace: PLACE });
    let before = 'whoever has the set';
    for (const words of ['least to do of yard', 'the client’s usual person', 'any of dock crew', 'nobody yet']) {
      await user.click(screen.getByRole('button', { name: `Task 1: who: ${before}` }));
      await user.keyboard(words);
      await user.click(screen.getByRole('option', { name: words }));
      before = words;
    }
    expect(chosen).toEqual([
      { by: 'leastToDo', group: YARD },
      { by: 'usualPerson' },
      { by: 'anyOf', group: { of: 'role', role: 'dock crew' } },
      { by: 'nobody' },
    ]);
  });
});

describe('a draft of a template that was kept before it had a rule', () => {
  it('keeps the person it named', () => {
    const { assignment: _, ...older } = FRESH;
    const kept = { ...older, name: 'Walk', titlePattern: 'Walk', assigneeId: NADIA.id };
    expect(templateDraftSchema.parse(kept).assignment).toEqual(givenTo(NADIA.id));
    expect(templateDraftSchema.parse({ ...kept, assigneeId: null }).assignment).toEqual(givenTo(null));
  });
});
