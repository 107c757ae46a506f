/** Without a key for so long, somebody has stopped typing. */
const PAUSE_MS = 1500;

let lastKeyAt = Number.NEGATIVE_INFINITY;
let waiting: ReturnType<typeof setTimeout> | undefined;

/** Looks on from now on when somebody types on a page. */
export function watchTyping(page: Document): void {
  page.addEventListener('input', () => {
    lastKeyAt = Date.now();
  });
}

/** Does something that takes the focus away as soon as nobody is typing; asked for again meanwhile, once. */
export function afterTyping(work: () => void): void {
  clearTimeout(waiting);
  const left = lastKeyAt + PAUSE_MS - Date.now();
  if (left <= 0) work();
  else waiting = setTimeout(() => afterTyping(work), left);
}
