import {
  answersFor,
  askedOn,
  type CivilDay,
  canHear,
  type Group,
  type HearRules,
  type HearWish,
  hearWish,
  instantOf,
  isoOfDay,
  isoTimeOf,
  leavesAt,
  type MessageKind,
  type MessageSide,
  minutesFor,
  type People,
  peopleHere,
  type Right,
  type Telling,
  USUAL_QUIET,
  type WorkingCalendar,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import { MessageWishRecord } from './entity.ts';

/** Everybody who may have to hear of something, with how they wish to. */
export class Office {
  private constructor(
    readonly people: ReadonlyMap<string, Person>,
    private readonly wishes: ReadonlyMap<string, MessageWishRecord>,
    private readonly here: People,
    private readonly calendar: WorkingCalendar,
    private readonly rules: HearRules,
  ) {}

  /** Who has left, or is not here yet, is none of them. */
  static async of(scope: Scope): Promise<Office> {
    const [people, wishes, here, calendar] = await scope.atOnce(
      () => scope.find(Person),
      () => scope.find(MessageWishRecord),
      async () => peopleHere(await colleagues(scope)),
      () => scope.calendar(),
    );
    return new Office(
      new Map(people.filter(({ id }) => here.workers.has(id)).map((person) => [person.id, person])),
      new Map(wishes.map((one) => [one.personId, one])),
      here,
      calendar,
      scope.workspace.hearing,
    );
  }

  readonly nameOf = (personId: string): string | null => this.people.get(personId)?.name ?? null;

  /** How lines of messages are worded here. */
  telling({ now, workspace }: Scope): Telling {
    return { today: now.day, ways: workspace.ways, nameOf: this.nameOf };
  }

  /** Who takes over for somebody; null for nobody. */
  deputyOf(personId: string | null): string | null {
    return personId === null ? null : (this.people.get(personId)?.deputyId ?? null);
  }

  /** Those of a group who may take work on a day: who has hours then, and is on shift where that is asked. */
  whoMayTake(group: Group, day: CivilDay): readonly string[] {
    return this.here.available(group, day, askedOn(day, this.calendar)).ids;
  }

  /** Where somebody hears of such a thing; null where they don't at all. */
  wishOf(personId: string, side: MessageSide, kind: MessageKind): HearWish | null {
    const person = this.people.get(personId);
    return person === undefined
      ? null
      : hearWish(person.access, this.wishes.get(personId)?.hears ?? {}, side, kind, this.rules);
  }

  /** Those who answer for work of others, and hear of such a thing. */
  answering(kind: MessageKind, by?: Right): string[] {
    return [...this.people.values()].flatMap(({ id, access }) =>
      answersFor(access, kind, by) && canHear(access, 'gave', kind) ? [id] : [],
    );
  }

  /** When a mail of a single thing that is told now may leave for somebody. */
  mailAt({ now, instant, workspace }: Scope, personId: string, kind: MessageKind): Date {
    const worker = this.here.workers.get(personId);
    const quiet = this.wishes.get(personId)?.quiet ?? USUAL_QUIET;
    const isFree = (day: number) => worker !== undefined && minutesFor(worker, day, askedOn(day, this.calendar)) === 0;
    const { day, minutes } = leavesAt(quiet, kind, now, isFree);
    if (day === now.day && minutes === now.minutes) return instant;
    return new Date(instantOf(isoOfDay(day), isoTimeOf(minutes), workspace.zone));
  }
}
