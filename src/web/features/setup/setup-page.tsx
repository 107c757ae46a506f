import { type FormEvent, type ReactNode, useEffect, useId, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useSWRConfig } from 'swr';
import { setupAddresses, workspaceAddresses } from '../../../contract/addresses.ts';
import { type HolidaySetting, MIN_PASSWORD } from '../../../contract/index.ts';
import { dayOfIso, makeCalendar, type Weekday, weekWith, zoneCity } from '../../../core/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { addressOf, ask, ProblemError } from '../../kit/api.ts';
import { FieldError } from '../../kit/field-error.tsx';
import { Picker } from '../../kit/picker.tsx';
import { Trouble } from '../../kit/states.tsx';
import { WeekHoursRow } from '../../kit/week-hours-row.tsx';
import { WeekdayToggles } from '../../kit/weekday-toggles.tsx';
import { SetupYear } from './setup-year.tsx';

/** The first page of an installation: what the workspace is called, when it works, and who begins it. */
export default function SetupPage() {
  const { data: state, error, mutate } = useAnswer(setupAddresses.state, {});
  if (error && !state) return <Trouble error={error} retry={() => void mutate()} />;
  if (!state) return null;
  return state.isOpen ? <SetupForm needsKey={state.needsKey} today={dayOfIso(state.today)} /> : <Closed />;
}

function Closed() {
  return (
    <main className="mx-auto max-w-[560px] px-6 py-24">
      <title>Jolly Rota</title>
      <h1 className="text-[28px] leading-8.5">Nothing can be begun here.</h1>
      <p className="mt-3 text-body">
        There is a workspace already, or the server was started without a set-up key. Ask one of its managers for a way
        in; whoever runs the server finds the key where it was started.
      </p>
      <p className="mt-4">
        <Link className="btn" to="/sign-in">
          Sign in
        </Link>
      </p>
    </main>
  );
}

interface SetupFormProps {
  readonly needsKey: boolean;
  readonly today: number;
}

const OWN_ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;
const ZONES = Intl.supportedValuesOf('timeZone').map((zone) => ({
  key: zone,
  name: zoneCity(zone),
  detail: zone.split('/')[0] ?? '',
}));
/** As the browser's language says, until another is chosen. */
const OWN_COUNTRY = new Intl.Locale(navigator.language).region ?? '';

function SetupForm({ needsKey, today }: SetupFormProps) {
  const [search] = useSearchParams();
  const { mutate } = useSWRConfig();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [zone, setZone] = useState(OWN_ZONE);
  const [workingWeekdays, setWeekdays] = useState<Weekday[]>([1, 2, 3, 4, 5]);
  const [weekMinutes, setMinutes] = useState<number[]>(() => weekWith([], [1, 2, 3, 4, 5]));
  const [country, setCountry] = useState(OWN_COUNTRY);
  const [region, setRegion] = useState('');
  const [key, setKey] = useState(search.get('key') ?? '');
  const [person, setPerson] = useState({ name: '', email: '', password: '' });
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const countries = useAnswer(setupAddresses.countries, {}).data?.countries ?? [];
  const holidays = useHolidays(countries.some(({ code }) => code === country) ? country : '', region);
  const calendar = useMemo(() => makeCalendar({ workingWeekdays, holidays }), [workingWeekdays, holidays]);
  const regions = countries.find(({ code }) => code === country)?.regions ?? [];
  const at = (path: string) => problem?.problem.errors?.find((one) => one.path === path)?.message;
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    try {
      const known = countries.some(({ code }) => code === country) ? country : '';
      const session = await ask(setupAddresses.begin, {
        body: { key, name, zone, workingWeekdays, weekMinutes, country: known, region, person },
      });
      await mutate(addressOf(workspaceAddresses.session), session, { revalidate: false });
      await navigate('/', { replace: true });
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    } finally {
      setBusy(false);
    }
  };
  const line = 'my-3 font-head text-[22px] leading-10 font-semibold font-stretch-[88%]';
  return (
    <div className="grid min-h-full grid-cols-[664px_minmax(0,1fr)] max-[1100px]:grid-cols-1">
      <title>Begin · Jolly Rota</title>
      <section
        className="relative overflow-hidden bg-bar pt-[22px] pb-6 pl-14 text-bar-text max-[1100px]:hidden"
        aria-label="The year that this makes"
      >
        <p className="mb-[18px] font-head text-[30px] leading-9 font-bold" style={{ fontStretch: '84%' }}>
          Jolly Rota
        </p>
        <SetupYear today={today} calendar={calendar} />
      </section>
      <main className="flex flex-col justify-center px-[76px] py-10 max-[720px]:px-6">
        <form onSubmit={(event) => void begin(event)} noValidate aria-label="A workspace of your own">
          <h1 className="sr-only">A workspace of your own</h1>
          <div className={line}>
            We are{' '}
            <input
              className="blank w-[240px] text-[22px]"
              // biome-ignore lint/a11y/noAutofocus: it is the one thing that is asked first
              autoFocus
              aria-label="What the workspace is called"
              placeholder="Saltmarsh Landing"
              maxLength={80}
              value={name}
              onChange={({ target }) => setName(target.value)}
            />
            .
          </div>
          <Wrong message={at('name')} />
          <div className={line}>
            We work{' '}
            <WeekdayToggles
              name="Days that are worked"
              chosen={workingWeekdays}
              least={1}
              most={7}
              onChange={(weekdays) => {
                setWeekdays(weekdays);
                setMinutes(weekWith(weekMinutes, weekdays));
              }}
            />
          </div>
          <p className="text-row leading-7">
            for so many hours: <WeekHoursRow weekdays={workingWeekdays} minutes={weekMinutes} onChange={setMinutes} />
          </p>
          <Wrong message={at('workingWeekdays') ?? at('weekMinutes')} />
          <div className={line}>
            with the holidays of{' '}
            <Picker
              label="Country"
              chosen={country}
              placeholder="no country"
              options={[
                { key: '', name: 'no country' },
                ...countries.map((one) => ({ key: one.code, name: one.name })),
              ]}
              onChoose={(code) => {
                setCountry(code);
                setRegion('');
              }}
            />
            {regions.length > 0 && (
              <>
                {', '}
                <Picker
                  label="Region"
                  chosen={region}
                  placeholder="all of it"
                  options={[
                    { key: '', name: 'all of it' },
                    ...regions.map((one) => ({ key: one.code, name: one.name })),
                  ]}
                  onChoose={setRegion}
                />
              </>
            )}
            ,
          </div>
          <div className={line}>
            by the clock of{' '}
            <Picker label="Clock" chosen={zone} chosenName={zoneCity(zone)} options={ZONES} onChoose={setZone} />.
          </div>
          <Wrong message={at('zone') ?? at('country') ?? at('region')} />
          <p className="text-row text-ink-2">
            <span className="max-[1100px]:hidden">The year beside it follows as you choose. </span>All of it can be
            changed later.
          </p>
          <div className="mt-5 grid grid-cols-2 gap-x-4 gap-y-3 max-[720px]:grid-cols-1">
            <Field label="Your name" message={at('person.name')}>
              {(id) => (
                <input
                  id={id}
                  className={FIELD}
                  autoComplete="name"
                  value={person.name}
                  onChange={({ target }) => setPerson({ ...person, name: target.value })}
                />
              )}
            </Field>
            <Field label="Your mail" message={at('person.email')}>
              {(id) => (
                <input
                  id={id}
                  className={FIELD}
                  type="email"
                  autoComplete="username"
                  value={person.email}
                  onChange={({ target }) => setPerson({ ...person, email: target.value })}
                />
              )}
            </Field>
            <Field label={`A password, ${MIN_PASSWORD} characters or more`} message={at('person.password')}>
              {(id) => (
                <input
                  id={id}
                  className={FIELD}
                  type="password"
                  autoComplete="new-password"
                  value={person.password}
                  onChange={({ target }) => setPerson({ ...person, password: target.value })}
                />
              )}
            </Field>
            {needsKey && (
              <Field label="The key that the start printed" message={at('key')}>
                {(id) => (
                  <input
                    id={id}
                    className={FIELD}
                    autoComplete="off"
                    value={key}
                    onChange={({ target }) => setKey(target.value)}
                  />
                )}
              </Field>
            )}
          </div>
          {problem && !problem.problem.errors?.length && <Wrong message={problem.message} />}
          <button type="submit" className="btn btn-primary mt-5 h-11 px-6" disabled={busy}>
            {name.trim() === '' ? 'Open the workspace' : `Open ${name.trim()}`}
          </button>
        </form>
        {!needsKey && (
          <p className="mt-6 border-t border-line-2 pt-3 text-row">
            <Link className="link-line" to="/sign-in">
              Sign in to a workspace that is there
            </Link>
          </p>
        )}
      </main>
    </div>
  );
}

const FIELD = 'mt-1 h-11 w-full rounded-t-[4px] border-0 border-b-2 border-primary bg-field px-3 text-touch text-ink';

interface FieldProps {
  readonly label: string;
  readonly message: string | undefined;
  readonly children: (id: string) => ReactNode;
}

function Field({ label, message, children }: FieldProps) {
  const id = useId();
  return (
    <div>
      <label className="text-row" htmlFor={id}>
        {label}
      </label>
      {children(id)}
      <Wrong message={message} />
    </div>
  );
}

function Wrong({ message }: { readonly message: string | undefined }) {
  return message === undefined ? null : <FieldError message={message} />;
}

/** The days off of a country, once they are known; those of the one before stay so long. */
function useHolidays(country: string, region: string): readonly HolidaySetting[] {
  const { data } = useAnswer(setupAddresses.publicHolidays, country === '' ? null : { query: { country, region } });
  const [known, setKnown] = useState<readonly HolidaySetting[]>([]);
  useEffect(() => {
    if (country === '') setKnown([]);
    else if (data) setKnown(data.holidays);
  }, [country, data]);
  return known;
}
