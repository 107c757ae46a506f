import { joinAnd, type OwnOfSteps, sayDuration } from '../../../../core/index.ts';

/** What the tasks of a schedule say of their own from a date on: "Kit Sorrell does it, 55 min". */
export function sayOwn(own: OwnOfSteps, nameOf: (personId: string | null) => string): string {
  const [main = {}, ...others] = [
    own[''],
    ...Object.entries(own).flatMap(([step, fields]) => (step === '' ? [] : [fields])),
  ];
  const said = [
    main.assigneeId !== undefined && `${nameOf(main.assigneeId)} does it`,
    main.titlePattern !== undefined && `called “${main.titlePattern}”`,
    main.estimateMinutes !== undefined && sayDuration(main.estimateMinutes),
    main.priority !== undefined && `${main.priority} priority`,
    main.instructions !== undefined && 'its own instructions',
    others.length > 0 && 'steps of its own',
  ].filter((words): words is string => words !== false);
  return joinAnd(said);
}
