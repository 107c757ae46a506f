/**
 * The front door of the core. Functions named after dates (`occurrencesBetween`, `planBetween`, `rollDate` …) take and give
 * ISO strings; those named after days (`planDays`, `nextDated` …) take and give civil days, whole days since 1970-01-01.
 */

export {
  answerAddress,
  answerKey,
  deliveryFailure,
  isAutomatic,
  type MailSigns,
  MOST_HANDED_ON,
  ownWords,
} from './answers/answer-mail.ts';
export {
  ASK_KINDS,
  type Ask,
  type AskedTask,
  type AskingRules,
  type AskKind,
  LINK_OPENS,
  type LinkOpens,
  linkEnds,
  linkWorksUntil,
  mailOwed,
  USUAL_ASKING,
} from './asking/asking.ts';
export {
  type Assigner,
  type AssigningContext,
  asksForLoad,
  assigner,
  byNameOn,
  type DayTimes,
  type Settled,
  setAsksForLoad,
  windowOfTimes,
} from './assignment/assigner.ts';
export {
  ASSIGNMENT_KINDS,
  type Assignment,
  type AssignmentKind,
  type AssignmentRule,
  type Group,
  givenTo,
  groupKey,
  type Offer,
  People,
  type Why,
} from './assignment/assignment.ts';
export { atOnce, type TimedWork } from './assignment/at-once.ts';
export {
  askedOn,
  canHaveWhile,
  lackedTicket,
  minutesFor,
  minutesWithin,
  type NoTicket,
  shiftsOn,
  unavailableOn,
  type Worker,
  workedDays,
} from './assignment/availability.ts';
export {
  COVERS,
  type Cover,
  type CoverChoice,
  LEAVE_COVERS,
  type LeaveCover,
  TURN_COVERS,
  type TurnCoverChoice,
} from './assignment/cover-choice.ts';
export { type DefaultRule, defaultHandedOn, type UnnamedGroup } from './assignment/default-rule.ts';
export { type EvenMove, type EvenPerson, type EvenTask, evenOut, unevennessOf } from './assignment/even-out.ts';
export { type Exchange, exchangesOf } from './assignment/exchange.ts';
export { FAIR_WEEKS, fairTakers, type TurnsHad } from './assignment/fair-turns.ts';
export { type LineHolds, type ListFault, type ListReading, readList, sayList } from './assignment/list-text.ts';
export { goesOnAfter, type Listed, lastListed, listedTwice, MOST_LISTED } from './assignment/listed.ts';
export { Loads, type WeekOfWork } from './assignment/loads.ts';
export { type Colleague, HALVES, type Half, peopleHere, ticketsHeld, workerOf } from './assignment/people-here.ts';
export {
  eachNeedsDates,
  handedOn,
  holdersOf,
  mayComeToDo,
  namedFrom,
  namedIn,
  onlyPersonOf,
} from './assignment/people-in-rule.ts';
export {
  type DatesBetween,
  goesOnWith,
  placeFrom,
  type Roster,
  rosterInForce,
  type Swap,
  type TurnLength,
  type Turns,
  turnOn,
} from './assignment/roster.ts';
export {
  callNames,
  firstName,
  type NamedPerson,
  NOBODY_YET,
  NOT_HERE,
  readRule,
  sayGroup,
  sayOffer,
  sayRule,
} from './assignment/rule-words.ts';
export { datesBetweenOf } from './assignment/turn-dates.ts';
export { type TurnSpan, turnsOf, type WorkedTurn, workedTurnsOf } from './assignment/turn-spans.ts';
export { type NameOf, sayPassedOver, sayWhy, sayWhyBeside, sayWhyOf } from './assignment/why-words.ts';
export { asWritten, defused } from './bring-in/cells.ts';
export { type DaysOffRead, readDaysOff } from './bring-in/days-off-ics.ts';
export {
  ASSET_OWN,
  BRING_KINDS,
  BRING_RIGHTS,
  BRING_WORDS,
  type BringField,
  type BringKind,
  bringFields,
  isNewField,
  NEW_FIELDS,
  type NewField,
  OWN,
  sayLines,
} from './bring-in/fields.ts';
export { guessColumns } from './bring-in/guess.ts';
export { type Meant, nameKey, whoIsMeant } from './bring-in/people-names.ts';
export {
  type RowProblem,
  type RowReading,
  type RowValues,
  readRow,
  textOfValue,
  turnedName,
} from './bring-in/row.ts';
export { type LineProblem, readScheduleLine, writeScheduleLine } from './bring-in/schedule-line.ts';
export { readStepLine, type StepLine, writeStepLine } from './bring-in/step-line.ts';
export { type FileState, readFileState } from './bring-in/task-state.ts';
export {
  DAY_ORDERS,
  type DayOrder,
  type DayOrderFound,
  dayOrderOf,
  readFileDate,
  readFileMoment,
  readFileNumber,
} from './bring-in/values.ts';
export { CONVENTIONS, type Convention } from './calendar/business-day.ts';
export {
  closedOn,
  InvalidSeasonError,
  longestClosure,
  type MonthDay,
  type Season,
  tryMonthDay,
} from './calendar/closed-season.ts';
export { addWorkingDays, type Holiday, makeCalendar, rollDate } from './calendar/iso-calendar.ts';
export {
  NoWorkingDayError,
  WEEKDAYS_ONLY,
  type WorkingCalendar,
  workingCalendar,
  workingDaysBetween,
} from './calendar/working-calendar.ts';
export type { Entry, EntryAlarm, EntryPart, EntryPerson, EntryTime } from './calendar-entries/entry.ts';
export {
  type CalendarAsked,
  type CalendarChoices,
  ENTRY_FATES,
  type EntryContext,
  type EntryFate,
  type EntryMeaning,
  type EntryWork,
  isWholeDays,
  meaningOf,
  zonesOf,
} from './calendar-entries/meaning.ts';
export { type Series, type SeriesDate, seriesOf } from './calendar-entries/series.ts';
export type { ZoneOf } from './calendar-entries/times.ts';
export { entryPersonKey, holderOfEntry, ONE_FOR_ANY, peopleOfEntry, ruleOfEntry } from './calendar-entries/who.ts';
export { type Captured, type CapturedKind, readCapture, subjectsSaid } from './capture/capture.ts';
export { plainWords } from './capture/words.ts';
export {
  type CivilDay,
  civilDay,
  daysInMonth,
  isoWeekOf,
  mondayOf,
  type Weekday,
  weekdayOf,
  yearMonthDay,
} from './civil-date/civil-day.ts';
export { civilTimeAt, instantOf, isZone, type ZoneObservance, zoneObservances } from './civil-date/instant.ts';
export {
  dayOfIso,
  InvalidDateError,
  type IsoDate,
  type IsoTime,
  isoOfDay,
  isoTimeOf,
  tryDayOfIso,
  tryMinutesOfTime,
} from './civil-date/iso-date.ts';
export { monthIndexOf, monthOf, monthStart, monthsLater } from './civil-date/month.ts';
export { type OfParts, partAssigner, ruleOfStep } from './doing/part-assigner.ts';
export {
  type Answer,
  type AnswerValue,
  answerProblem,
  type CheckLine,
  DEMAND_WORDS,
  type Demand,
  type DemandKind,
  type Doing,
  isFinishedByLast,
  isOutside,
  isTickedByProof,
  MAX_ANSWER,
  type Missing,
  missingOnLine,
  type NumberDemand,
  outsideBy,
  ownOf,
  plainTag,
  sayWrongTag,
  stillMissing,
  type TagDemand,
  tagToStart,
} from './doing/proof.ts';
export { sayAnswer, sayDemand, sayLimits, sayMissing, sayNumber, sayOutside } from './doing/proof-words.ts';
export { minutesOfHolder, type SetTask, tasksOfSet, ticketsOfHolder } from './doing/set-tasks.ts';
export {
  type CheckStep,
  MAIN_PART,
  partDays,
  partOffered,
  type SetPart,
  type SignOff,
  type Step,
  type StepAssignee,
  sayOffset,
  setMinutes,
  setParts,
  setReach,
  startedSet,
  type TaskStep,
} from './doing/template-set.ts';
export { groupBy } from './group.ts';
export { type Band, bandOf, COMING_DAYS, compareTimes } from './insight/day-bands.ts';
export { dayLoads } from './insight/day-load.ts';
export { DUE_SPANS, type DueSpan, spanOfDue } from './insight/due-span.ts';
export { addedUp, type OnTime, percentOf } from './insight/on-time.ts';
export { liesOutside, type Reading, type ReadingSeries, readingSeries } from './insight/readings.ts';
export { type LettingGo, nextLettingGo, RETENTION_GRACE_DAYS, type Retention } from './insight/retention.ts';
export { roundedTogether } from './insight/rounded.ts';
export {
  type CivilNow,
  type DatedTask,
  ENDED_STATES,
  isEnded,
  isOverdue,
  isToDo,
  lookOf,
  sayLate,
  TASK_STATES,
  type TaskLook,
  type TaskState,
  TO_DO_STATES,
  UNFINISHED_STATES,
} from './insight/task-state.ts';
export {
  addMark,
  cellsOfMarks,
  columnOfDay,
  commonSpans,
  type DaySpan,
  packedMarks,
  spansWithin,
  WALL_LOOKS,
  WALL_SPANS,
  WALL_UNITS,
  type WallCell,
  type WallDays,
  type WallLook,
  type WallSpan,
  type WallUnit,
  wallDays,
  wallHalves,
  wallTurned,
} from './insight/wall.ts';
export {
  LABEL_FORMS,
  LABEL_SIZES,
  type LabelForm,
  type LabelSize,
  labelPlaces,
  labelsOfSheet,
} from './labels/label-sheet.ts';
export {
  ESCALATED_TO,
  ESCALATED_WORDS,
  type EscalatedTo,
  type Escalation,
  MOST_LATE_HOURS,
  sayEscalation,
  USUAL_ESCALATION,
} from './messages/escalation.ts';
export {
  namesIn,
  SERVER_JOBS,
  type ServerJob,
  sayAnswered,
  sayBroughtIn,
  sayCallList,
  sayComment,
  sayLeave,
  sayNoticesDue,
  sayOpened,
  sayPool,
  sayRun,
  sayServerTrouble,
  sayShiftGaps,
  sayStopped,
  saySwap,
} from './messages/happening-words.ts';
export {
  type AskedTurn,
  type Heard,
  type HeardAsked,
  heardOfLeave,
  heardOfSwap,
  heardOfTurn,
  type TaskFacts,
  type TaskTurn,
  TURNS,
  type Turn,
} from './messages/hearing.ts';
export {
  ACCESS_OF_GROUP,
  answersFor,
  canHear,
  groupOf,
  HEAR_GROUP_WORDS,
  HEAR_GROUPS,
  HEAR_SAYS,
  HEAR_SAYS_WORDS,
  HEAR_SIDE_WORDS,
  HEARD_BY,
  HEARD_BY_WORDS,
  type HearChoices,
  type HeardBy,
  type HearGroup,
  type HearRule,
  type HearRules,
  type HearSays,
  type HearWish,
  hearRule,
  hearWish,
  KIND_WORDS,
  MESSAGE_KINDS,
  MESSAGE_SIDES,
  type MessageKind,
  type MessageSide,
  sayHearing,
} from './messages/kinds.ts';
export {
  type MessageWords,
  sayFirstOf,
  sayTimed,
  sayTurn,
  sayTurns,
  type Telling,
  type TimedKind,
  type ToldTask,
} from './messages/message-words.ts';
export { isQuietTime, leavesAt, type QuietWish, USUAL_QUIET } from './messages/quiet.ts';
export { type DueReminder, remindersBetween } from './messages/reminders.ts';
export {
  isSummaryOwed,
  SUMMARY_BANDS,
  SUMMARY_DAYS,
  SUMMARY_WORDS,
  type SummaryBandName,
  type SummaryDays,
  type SummaryWish,
  saySummary,
  summaryBandsFor,
  usualSummary,
} from './messages/summary.ts';
export {
  type FilledBlock,
  type FilledLetter,
  type FilledRun,
  fillLetter,
  LETTER_BLOCKS,
  LETTER_LANGUAGE_TAGS,
  LETTER_LANGUAGES,
  LETTER_TOKEN_NAMES,
  LETTER_TOKENS,
  type LetterBlock,
  type LetterLanguage,
  type LetterRun,
  type LetterText,
  type LetterToken,
  type LetterValues,
  letterProblems,
  sayDayIn,
  sayWindow,
  textOfRuns,
} from './notice/letter.ts';
export {
  type DayCount,
  DELIVERY_KINDS,
  type DeliveryKind,
  type DeliveryWay,
  earliestVisitFrom,
  latestSending,
  type NoticePeriod,
} from './notice/notice.ts';
export { byPlace, roundTimes, type Stop, type StopTimes } from './notice/round.ts';
export {
  isToSend,
  NOTICE_STATES,
  type NoticeStanding,
  type NoticeState,
  noticeStanding,
  type WrittenNotice,
} from './notice/standing.ts';
export {
  countedEnd,
  headLines,
  type LatestDay,
  latestDays,
  MOST_REMIND,
  NO_VISITS,
  sayNoticePeriod,
  termsOf,
  USUAL_REMIND,
  type VisitRules,
  type VisitTerms,
  type VisitWindow,
  visitTimes,
} from './notice/visit-terms.ts';
export {
  FIELD_KINDS,
  type FieldKind,
  type FieldValues,
  fieldProblem,
  type OwnField,
  PREFERS,
  type Prefers,
} from './own-fields/own-fields.ts';
export {
  ACCESS_LEVELS,
  ACCESS_WORDS,
  type Access,
  mayAll,
  type Reach,
  RIGHT_NAMES,
  type Right,
  reachOf,
  sayWhoMayAll,
  TOKEN_SCOPE_WORDS,
  TOKEN_SCOPES,
  type TokenScope,
  tokenMay,
} from './people/access.ts';
export { sayRoles } from './people/roles.ts';
export {
  daysOfOtherHours,
  faultOfDay,
  faultOfPattern,
  minutesOfShift,
  type PatternShift,
  patternOfWeeks,
  type Shift,
  type ShiftChange,
  type ShiftFault,
  WHOLE_DAY,
  weeksOfShifts,
  windowOfShift,
} from './people/shifts.ts';
export {
  DAYS_A_WEEK,
  type Employment,
  hasLeftBy,
  isHereOn,
  MOST_MINUTES_A_DAY,
  minutesAWeek,
  plainWeek,
  readDayHours,
  sayDayHours,
  type WeekHours,
  type WeekMinutes,
  weekInPattern,
  weekWith,
} from './people/week-hours.ts';
export {
  addDate,
  type ByHand,
  changeDate,
  changeOf,
  dropRevision,
  endBefore,
  moveDate,
  moveWithin,
  ownFrom,
  pauseFrom,
  pauseOn,
  putBack,
  resumeFrom,
  reviseFrom,
  skipDate,
  skipWithin,
  stretchAt,
} from './planning/by-hand.ts';
export { type Days, daysToCompare } from './planning/calendar-change.ts';
export { leftOutWithinHorizon, occurrencesWithinHorizon } from './planning/horizon.ts';
export { type OccurrenceInstants, occurrenceInstants, remindersOf } from './planning/instants.ts';
export { type IsoOccurrence, planBetween } from './planning/iso-plan.ts';
export { type MovedFrom, moveFrom, unnamedFrom } from './planning/move-from.ts';
export { nextDated } from './planning/next-dated.ts';
export { seriesNumbers } from './planning/numbers.ts';
export { type Outlook, outlook, type PlannedYear, planYear } from './planning/outlook.ts';
export { admitted, daysWaited, type Overlap } from './planning/overlap.ts';
export {
  type DatedOccurrence,
  isDated,
  namedFor,
  type OmittedOccurrence,
  type PlannedOccurrence,
  planDays,
} from './planning/plan.ts';
export { reckoningFault } from './planning/reckoning-fault.ts';
export { type DeletedTask, type HeldBecause, type Reconciliation, reconcile } from './planning/reconcile.ts';
export { type RehearsedLine, rehearsedLines } from './planning/rehearsed.ts';
export type { Remark, WorkBeside } from './planning/remark.ts';
export { remarks } from './planning/remarks.ts';
export { remarkAtOnce } from './planning/remarks-on-who.ts';
export { explainRRule, type RRuleOptions, type WrittenRRule, writeRRule } from './planning/rrule-writer.ts';
export {
  type Exception,
  type LastOne,
  type OwnFields,
  type OwnOfSteps,
  type Pause,
  type PlannedSchedule,
  type Revision,
  revisionAfter,
  revisionOn,
} from './planning/schedule-plan.ts';
export {
  type EditableTask,
  editedFields,
  editOfOther,
  revisionOfEdit,
  type SeriesEdit,
} from './planning/series-edit.ts';
export { shownDays } from './planning/shown.ts';
export {
  FRESH_TIMING,
  type Offset,
  offsetDay,
  PLAIN_TIMING,
  type Reminder,
  reachInDays,
  type Timing,
} from './planning/timing.ts';
export {
  AT_ITS_HOUR_MINUTES,
  type DayOfCalls,
  dayOfCalls,
  type HourOfCalls,
  hoursCompared,
  LEAST_TO_COMPARE,
  PROMISES_KEPT,
  type PromiseKept,
  promiseKept,
  type Streaks,
  streaksOf,
} from './quota/figures.ts';
export { forecastPool, type PoolAhead, shareThatLasts } from './quota/forecast.ts';
export { SHUFFLE_FACTOR, seedOf, shuffled } from './quota/lots.ts';
export {
  CALL_ORDERS,
  type Candidate,
  type ListedCall,
  pickLists,
  type WhyListed,
  whyPicked,
} from './quota/picking.ts';
export {
  conditionProblem,
  type FieldTest,
  isInPool,
  MOST_CONDITIONS,
  type Pool,
  type PoolCondition,
  sayCondition,
  testsOf,
} from './quota/pool.ts';
export {
  type Quota,
  type QuotaDeed,
  type QuotaGroup,
  type QuotaTerms,
  quotaAfter,
  quotaWith,
  termsOn,
} from './quota/quota.ts';
export { type CallToShare, shareCalls } from './quota/sharing.ts';
export {
  DAYS_MISSED,
  QUOTA_PERIODS,
  QUOTA_SHARES,
  type QuotaAmount,
  type Spread,
  spreadCalls,
} from './quota/spread.ts';
export {
  type CallBack,
  type CallStanding,
  FOLLOWS,
  FOR_GOOD,
  type Follows,
  NEVER_RUNG,
  type Outcome,
  standingAfter,
  USUAL_OUTCOMES,
  whyNotRung,
} from './quota/standing.ts';
export { sayWhyListed } from './quota/why-words.ts';
export { asked, TooMuchReckoningError, within } from './reckoning.ts';
export { canonicalRecurrence, mayLackDay } from './recurrence/canonical.ts';
export {
  nextOccurrence,
  type OccurrenceSeries,
  occurrenceSeries,
  occurrencesBetween,
} from './recurrence/occurrences.ts';
export { HABIT_WORDS, PHRASE_HABITS, type PhraseHabit, type PhraseHabits } from './recurrence/phrase/habits.ts';
export type { NamedSeason } from './recurrence/phrase/named-seasons.ts';
export { type PhraseProblem, rruleFault } from './recurrence/phrase/problem.ts';
export {
  type PhraseChoice,
  PhraseError,
  type PhraseQuestion,
  type PhraseReading,
  type PhraseReadingOptions,
  parsePhrase,
  readPhrase,
  readSeasonList,
  tryPhrase,
} from './recurrence/phrase/reader.ts';
export { type PhraseTimes, withTimes } from './recurrence/phrase/times.ts';
export { type PhraseOptions, phraseParts, writePhrase, writeSeasons } from './recurrence/phrase/writer.ts';
export { type RecurrenceProblem, recurrenceProblems } from './recurrence/recurrence-problems.ts';
export { RRuleError } from './recurrence/rrule/parts.ts';
export { parseRRule } from './recurrence/rrule/reader.ts';
export {
  type ClosedSeasons,
  DAYS_OFF,
  type DatesRule,
  type DaysOff,
  type DaysRule,
  type Distance,
  type End,
  type FollowsRule,
  type ForeignRule,
  followsRule,
  MAX_COUNT,
  MAX_DISTANCE,
  MAX_INTERVAL,
  MILESTONES,
  MISSING_DAY_POLICIES,
  type Milestone,
  type MissingDay,
  type MonthPoint,
  type MonthsRule,
  type Recurrence,
  type Rule,
  WAYS,
  type Way,
  type WeeksRule,
  type WorkingDaysRule,
  type YearsRule,
} from './recurrence/rule.ts';
export { InvalidRuleError } from './recurrence/rule-dates.ts';
export { asThePlan, type Followed, followPlan, offFrom, rolledOn, untilDay } from './service-plan/follow-plan.ts';
export {
  changedAspects,
  lastStretch,
  type OfPlan,
  OWN_ASPECTS,
  type OwnAspect,
  ownChanges,
} from './service-plan/own-changes.ts';
export {
  COUNTS_FROM,
  type CountsFrom,
  type Delay,
  estimatesOf,
  estimatesOfOwn,
  isCounted,
  itemProblem,
  MOST_DELAY,
  minutesWith,
  type PlanItem,
  type Planned,
  scheduleOfItem,
} from './service-plan/plan-item.ts';
export { sayAway } from './wording/away.ts';
export {
  joinAnd,
  monthName,
  monthShort,
  ordinal,
  ordinalWord,
  plural,
  readDate,
  sayDate,
  sayDay,
  sayDayOfMonth,
  sayNear,
  weekdayName,
  weekdayShort,
} from './wording/date-words.ts';
export { readDuration, sayDuration, sayHours } from './wording/duration.ts';
export { nearestWord } from './wording/spelling.ts';
export {
  fillTitle,
  hasToken,
  patternOfTitle,
  TITLE_TOKENS,
  type TitleContext,
  titleProblems,
} from './wording/title.ts';
export { readTypedDate, type TypedDate } from './wording/typed-date.ts';
export {
  CLOCKS,
  columnOf,
  DATE_ORDERS,
  type OwnWays,
  sayTime,
  sayTimeSpan,
  USUAL_WAYS,
  type Ways,
  WEEK_STARTS,
  weekdaysInOrder,
} from './wording/ways.ts';
export { zoneCity } from './wording/zone-words.ts';
export { type CellContext, type CellName, type CellSchedule, readTimeOfDay, writeCell } from './worksheet/cells.ts';
export type { NamedPlan } from './worksheet/plan-cell.ts';
export {
  type CellEdit,
  type CellPlace,
  changedFields,
  type EditedRow,
  editedRow,
  keepMine,
  NO_EDITS,
  pastedInto,
  plansJoined,
  putCellsBack,
  putTexts,
  readTabs,
  replaceWords,
  type SheetEdits,
  type SheetRow,
  sheetCell,
  withoutMet,
  writeTabs,
} from './worksheet/sheet.ts';
