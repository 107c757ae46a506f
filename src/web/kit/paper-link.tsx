/** Something to be taken along or hung up, as PDF. */
export function PaperLink({ href, words = 'On paper' }: { readonly href: string; readonly words?: string }) {
  return (
    <a
      className="link-line whitespace-nowrap text-note print:hidden max-[720px]:hidden"
      href={href}
      target="_blank"
      rel="noreferrer"
    >
      {words}
    </a>
  );
}
