import type { Summary } from '../../contract/index.ts';
import { SUMMARY_WORDS, type SummaryWish } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { Letter } from '../post/index.ts';

const DAYS: Readonly<Record<SummaryWish['days'], string>> = {
  working: 'on your working days',
  every: 'every day',
  none: 'on no day',
};

/** A summary as a letter: each line with a link to where it is done. @param origin scheme and host of this server */
export function summaryLetter(
  scope: Scope,
  summary: Summary,
  { name, wish, origin }: { readonly name: string; readonly wish: SummaryWish; readonly origin: string },
): Letter {
  const mayPlan = scope.mayAll('plan');
  return {
    subject: summary.subject,
    from: scope.workspace.name,
    greeting: `Dear ${name},`,
    paragraphs: summary.bands.length === 0 ? ['nothing is late, and nothing is due today.'] : [],
    bands: summary.bands.map(({ band, count, about, path, lines }) => ({
      title: `${count.toLocaleString('en-GB')} ${SUMMARY_WORDS[band]}`,
      about,
      lines: lines.map((line) => ({ ...line, url: `${origin}${line.path}` })),
      more:
        count > lines.length
          ? { words: lines.length === 0 ? 'All of them' : `and ${count - lines.length} more`, url: `${origin}${path}` }
          : null,
    })),
    deed: {
      words: mayPlan ? 'Open the morning page' : 'Open your day sheet',
      url: `${origin}/${mayPlan ? 'overview' : 'day-sheet'}`,
    },
    after: [`You get this at ${wish.at} ${DAYS[wish.days]}. Change that: ${origin}/messages`],
  };
}
