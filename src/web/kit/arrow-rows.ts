import type { KeyboardEvent } from 'react';

/** For a list's `onKeyDown`: arrows move the focus from row to row (elements with `data-row`), Home and End to the ends. */
export function moveThroughRows(event: KeyboardEvent<HTMLElement>): void {
  const step = { ArrowDown: 1, ArrowUp: -1, Home: Number.NEGATIVE_INFINITY, End: Number.POSITIVE_INFINITY }[event.key];
  if (
    step === undefined ||
    !(event.target instanceof HTMLElement) ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName)
  )
    return;
  const rows = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-row]')];
  const here = rows.findIndex((row) => row === event.target || row.contains(event.target as Node));
  const next = rows[Math.max(0, Math.min(rows.length - 1, here === -1 ? 0 : here + step))];
  if (!next) return;
  event.preventDefault();
  next.focus();
}
