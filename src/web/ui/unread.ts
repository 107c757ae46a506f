/** Blanks whose text can't be read: what stands in them is not what would be saved. */
const UNREAD = 'input.blank[aria-invalid="true"]';

/** Goes to the first blank that can't be read, so that nothing is saved in its place; false where there is none. */
export function goToUnread(): boolean {
  const blank = document.querySelector<HTMLInputElement>(UNREAD);
  blank?.focus();
  return blank !== null;
}
