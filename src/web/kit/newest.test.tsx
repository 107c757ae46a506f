import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { memo, useState } from 'react';
import { expect, test } from 'vitest';
import { useNewest } from './newest.ts';

test('a part that is dear to draw is drawn once, and does what it was last told', async () => {
  const user = userEvent.setup();
  const told: string[] = [];
  let drawn = 0;
  const Dear = memo(function Dear({ onPress }: { readonly onPress: (word: string) => void }) {
    drawn++;
    return (
      <button type="button" onClick={() => onPress('pressed')}>
        Press
      </button>
    );
  });
  function Around() {
    const [text, setText] = useState('');
    const press = useNewest((word: string) => void told.push(`${word} at ${text}`));
    return (
      <>
        <input aria-label="Text" value={text} onChange={({ target }) => setText(target.value)} />
        <Dear onPress={press} />
      </>
    );
  }
  render(<Around />);
  await user.type(screen.getByLabelText('Text'), 'noon');
  await user.click(screen.getByRole('button', { name: 'Press' }));
  expect(told).toEqual(['pressed at noon']);
  expect(drawn).toBe(1);
});
