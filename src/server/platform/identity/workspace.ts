import { Check, Column, Entity, PrimaryColumn } from 'typeorm';
import type { Category } from '../../../contract/index.ts';
import type {
  AskingRules,
  Escalation,
  HearRules,
  NamedSeason,
  Outcome,
  OwnField,
  PhraseHabits,
  VisitRules,
  Ways,
  Weekday,
} from '../../../core/index.ts';
import { OfWorkspace } from '../db/keys.ts';

@Entity({ name: 'workspace' })
@Check('workspace_horizon_days_check', 'horizon_days between 1 and 366')
@Check('workspace_make_time_check', `make_time ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'`)
@Check('workspace_year_starts_check', 'year_starts between 1 and 12')
@Check('workspace_done_stays_days_check', 'done_stays_days between 1 and 14')
@Check('workspace_keep_years_check', 'keep_years is null or (keep_years between 1 and 30 and keep_since is not null)')
export class Workspace {
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  @Column({ type: 'text' })
  name!: string;
  @Column({ type: 'text' })
  tagline!: string;
  /** IANA zone; the workspace's dates are civil dates of it. */
  @Column({ type: 'text' })
  zone!: string;
  @Column({ type: 'jsonb' })
  workingWeekdays!: Weekday[];
  /** Minutes that are usually worked on each weekday, Monday first; 0 on those that are off. */
  @Column({ type: 'jsonb' })
  weekMinutes!: number[];
  @Column({ type: 'jsonb' })
  categories!: Category[];
  /** Types of work that a template may be of. */
  @Column({ type: 'jsonb' })
  workTypes!: string[];
  /** What is kept of clients and of assets besides what everybody keeps. */
  @Column({ type: 'jsonb' })
  clientFields!: OwnField[];
  @Column({ type: 'jsonb' })
  assetFields!: OwnField[];
  /** Reasons for skipping that are offered. */
  @Column({ type: 'jsonb' })
  skipReasons!: string[];
  /** What people may be here, and the teams they may be in. */
  @Column({ type: 'jsonb' })
  roles!: string[];
  @Column({ type: 'jsonb' })
  teams!: string[];
  /** Qualifications that people may hold and work may ask for. */
  @Column({ type: 'jsonb' })
  tickets!: string[];
  @Column({ type: 'integer' })
  horizonDays!: number;
  /** Civil time of day of the daily making, HH:MM. */
  @Column({ type: 'text' })
  makeTime!: string;
  /** The last day whose making ran to its end. */
  @Column({ type: 'date', nullable: true })
  madeOn!: string | null;
  @Column({ type: 'boolean' })
  isDemo!: boolean;
  @Column({ type: 'integer' })
  version!: number;
  /** The month in which the financial year begins, 1–12: quarters and years of phrases follow it. */
  @Column({ type: 'integer' })
  yearStarts!: number;
  /** What is settled of how people here speak. */
  @Column({ type: 'jsonb' })
  phraseHabits!: PhraseHabits;
  /** Parts of the year that have a name here. */
  @Column({ type: 'jsonb' })
  seasons!: readonly NamedSeason[];
  /** How dates and times are seen here, by whoever has no own way. */
  @Column({ type: 'jsonb' })
  ways!: Ways;
  /** For how many days finished work stays on the day sheet, its own day among them. */
  @Column({ type: 'integer' })
  doneStaysDays!: number;
  /** Whether a swap of turns that two agree on waits for whoever plans. */
  @Column({ type: 'boolean' })
  swapsNeedNod!: boolean;
  /** How visits are announced. */
  @Column({ type: 'jsonb' })
  visits!: VisitRules;
  /** How clients are asked to do what is theirs, and the last day on which they were. */
  @Column({ type: 'jsonb' })
  asking!: AskingRules;
  @Column({ type: 'date', nullable: true })
  askedOn!: string | null;
  /** Who is told of late work, and after how long. */
  @Column({ type: 'jsonb' })
  escalation!: Escalation;
  /** What people usually hear of, where, and what they can't turn off. */
  @Column({ type: 'jsonb' })
  hearing!: HearRules;
  /** How a call can end. */
  @Column({ type: 'jsonb' })
  outcomes!: readonly Outcome[];
  /** For how many years finished work is kept, and the day on which it was set so; null for good. */
  @Column({ type: 'integer', nullable: true })
  keepYears!: number | null;
  @Column({ type: 'date', nullable: true })
  keepSince!: string | null;
}

@Entity({ name: 'holiday' })
@OfWorkspace('holiday')
export class Holiday {
  @PrimaryColumn({ type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'date' })
  date!: string;
  @Column({ type: 'text' })
  name!: string;
}
