import { Link } from 'react-router';

interface ListWaysProps {
  readonly list: 'clients' | 'assets' | 'people' | 'schedules' | 'templates';
  /** Where such a list is brought in; without it, it is only taken out. */
  readonly bring?: string;
}

/** A list into a file, and from one. */
export function ListWays({ list, bring }: ListWaysProps) {
  const look = 'link-line text-note max-[720px]:hidden';
  return (
    <>
      <a className={look} href={`/api/lists/${list}`} download>
        Take out as CSV
      </a>
      {bring && (
        <Link className={look} to={bring}>
          Bring in a list
        </Link>
      )}
    </>
  );
}
