import { act, render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { tellSteps, useSteps } from './steps.ts';

it('tells how far work is while it is done, and nothing of other work', async () => {
  let key = '';
  let end: () => void = () => undefined;
  function Waiting() {
    const { follow, percent } = useSteps();
    const work = (own: string) => {
      key = own;
      return new Promise<void>((resolve) => {
        end = resolve;
      });
    };
    return (
      <button type="button" onClick={() => void follow(work)}>
        {percent === null ? 'waits' : `${percent} %`}
      </button>
    );
  }
  render(<Waiting />);
  const said = () => screen.getByRole('button').textContent;
  act(() => screen.getByRole('button').click());
  act(() => tellSteps({ key: 'of another page', done: 1, of: 2 }));
  expect(said()).toBe('waits');
  act(() => tellSteps({ key, done: 1_450, of: 4_836 }));
  expect(said()).toBe('29 %');
  await act(async () => end());
  expect(said()).toBe('waits');
  act(() => tellSteps({ key, done: 4_836, of: 4_836 }));
  expect(said()).toBe('waits');
});
