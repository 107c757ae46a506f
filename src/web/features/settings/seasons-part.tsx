import { X } from 'lucide-react';
import type { Settings } from '../../../contract/index.ts';
import { readSeasonList, writeSeasons } from '../../../core/index.ts';
import { Part, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';

type Seasons = Settings['seasons'];

interface SeasonsPartProps {
  readonly seasons: Seasons;
  readonly wrong: string | undefined;
  readonly onChange: (seasons: Seasons) => void;
}

/** Parts of the year that have a name here, so that a phrase can say them. */
export function SeasonsPart({ seasons, wrong, onChange }: SeasonsPartProps) {
  const set = (place: number, change: Partial<Seasons[number]>) =>
    onChange(seasons.map((season, i) => (i === place ? { ...season, ...change } : season)));
  const first = seasons[0];
  return (
    <Part name="Seasons">
      <ul>
        {seasons.map(({ name, spans }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: names are typed, and two may be the same for a while
          <li key={i} className="flex flex-wrap items-baseline gap-x-2">
            <WordsBlank
              label={`Name of season ${i + 1}`}
              shown={name}
              placeholder="winter"
              wrong="give it a name of 40 characters at most"
              read={(text) => (text.trim() === '' || text.trim().length > 40 ? undefined : text.trim())}
              onChange={(typed) => set(i, { name: typed })}
            />
            is
            <WordsBlank
              label={`When ${name || `season ${i + 1}`} is`}
              shown={writeSeasons(spans)}
              placeholder="15 Nov to 14 Mar"
              wrong="write it like 15 Nov to 14 Mar, or Jul and Aug"
              read={(text) => readSeasonList(text) ?? undefined}
              onChange={(read) => set(i, { spans: read })}
            />
            <button
              type="button"
              className="cursor-pointer px-1 text-ink-2 hover:text-ink"
              aria-label={`Take out ${name || `season ${i + 1}`}`}
              onClick={() => onChange(seasons.filter((__, other) => other !== i))}
            >
              <X size={13} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="link-line leading-5"
        onClick={() => onChange([...seasons, { name: '', spans: [] }])}
      >
        Name a part of the year
      </button>
      <br />
      <span className="text-ink-2">
        {first?.name ? `“every Friday in ${first.name}”, “not in ${first.name}”` : '“every Friday in winter”'} is then
        read. Schedules keep the dates that they were given.
      </span>
      {wrong && <FieldError message={wrong} />}
    </Part>
  );
}
