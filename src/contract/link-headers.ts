/** Shown with every request of whoever came by a link: what stood in it, and what a code gave. */
export const LINK_HEADER = 'link-token';
export const PASS_HEADER = 'link-pass';
