/** Instructions as they were written. The server has let through only what may be shown. */
export function RichText({ html, className = '' }: { readonly html: string; readonly className?: string }) {
  // biome-ignore lint/security/noDangerouslySetInnerHtml: sanitised on the server at every write, and the page's policy runs no script of others
  return <div className={`rich-text ${className}`} dangerouslySetInnerHTML={{ __html: html }} />;
}

/** "2 pictures, 1 link, 3 headings": what a folded text holds besides words. */
export function sayContents(html: string): string {
  const count = (tag: string) => html.split(new RegExp(`<${tag}[ >]`, 'i')).length - 1;
  return [
    [count('img'), 'picture'],
    [count('a'), 'link'],
    [count('table'), 'table'],
  ]
    .filter(([n]) => n !== 0)
    .map(([n, word]) => `${n} ${word}${n === 1 ? '' : 's'}`)
    .join(', ');
}
