import { ChevronDown, ChevronUp } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { taskAddresses } from '../../../contract/addresses.ts';
import { useAnswer } from '../../kit/answer.ts';
import { Columns, type TidelineProps } from './tide-columns.tsx';

const FOLD_KEY = 'jolly-rota.tideline';

/** Work due per day over the past week and the coming six; it drives the page below. */
export function Tideline(props: TidelineProps) {
  const [folded, setFolded] = useState(() => localStorage.getItem(FOLD_KEY) === 'folded');
  const { data } = useAnswer(taskAddresses.tideline, { query: props.personId ? { person: props.personId } : {} });
  const fold = (next: boolean) => {
    localStorage.setItem(FOLD_KEY, next ? 'folded' : 'open');
    setFolded(next);
  };
  return (
    <section
      className="relative flex flex-none border-b border-line bg-base-200 print:hidden"
      style={{ height: folded ? 24 : 72 }}
      aria-label="Tideline"
    >
      {data && !folded && (
        <>
          <LateFigure
            late={data.late}
            scope={data.scope}
            to={props.personId ? `/day-sheet/${props.personId}` : '/tasks?are=late&due=any'}
          />
          <Columns {...props} tide={data} />
        </>
      )}
      {folded && data && (
        <p className="px-5 text-note leading-6 text-ink-2">
          <b className={data.late > 0 ? 'font-semibold text-late' : 'font-semibold text-ink'}>{data.late} late</b>,{' '}
          {data.scope}
        </p>
      )}
      <button
        type="button"
        className="absolute bottom-0 right-1 grid max-[720px]:hidden h-6 w-6 cursor-pointer place-items-center text-ink-2"
        aria-label={folded ? 'Unfold the tideline' : 'Fold the tideline away'}
        aria-expanded={!folded}
        onClick={() => fold(!folded)}
      >
        {folded ? <ChevronDown size={15} aria-hidden /> : <ChevronUp size={15} aria-hidden />}
      </button>
    </section>
  );
}

/** How much is late, and the way to it: a person's day sheet, or all tasks that are late. */
function LateFigure({ late, scope, to }: { readonly late: number; readonly scope: string; readonly to: string }) {
  const colour = late > 0 ? 'text-late' : 'text-ink';
  const figure = (
    <>
      <b className={`mr-[5px] font-head text-[30px] font-bold leading-7 ${colour}`} style={{ fontStretch: '80%' }}>
        {late}
      </b>
      <strong className={`text-body font-semibold ${colour}`}>late</strong>
    </>
  );
  return (
    <div className="w-[152px] flex-none pl-5 pt-[9px] text-note leading-4 max-[720px]:w-[92px] max-[720px]:pl-4">
      {late > 0 ? (
        <Link to={to} aria-label={`${late} late, ${scope}: show what is late`}>
          {figure}
        </Link>
      ) : (
        figure
      )}
      <div className="truncate text-ink-2">
        <span className="max-[720px]:hidden">work due a day,</span>
        <br className="max-[720px]:hidden" />
        {scope}
      </div>
    </div>
  );
}
