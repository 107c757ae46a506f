import { afterTyping } from '../../kit/typing.ts';

/** Whether the session has ended under an open page: told by whoever hears of it, asked by the frame. */
type Listener = () => void;

const ended = new Set<Listener>();
const begun = new Set<Listener>();

function add(listeners: Set<Listener>, listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export const onSessionEnded = (listener: Listener) => add(ended, listener);
export const onSessionBegun = (listener: Listener) => add(begun, listener);

/** Whoever is in the middle of a word finishes it first: what asks for the password would have the rest of it. */
export function tellSessionEnded(): void {
  afterTyping(() => {
    for (const listener of ended) listener();
  });
}

export function tellSessionBegun(): void {
  for (const listener of begun) listener();
}
