/** Fields whose text can't be read: what stands in them is not what would be saved. */
const UNREAD = '[data-unread]';

/** Goes to the first field that can't be read, so that nothing is saved in its place; false where there is none. */
export function goToUnread(): boolean {
  const field = document.querySelector<HTMLElement>(UNREAD);
  field?.focus();
  return field !== null;
}
