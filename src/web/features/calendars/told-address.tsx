import { ToldOnce } from '../../kit/told-once.tsx';

/** An address of a calendar: to be copied, or opened by whatever shows calendars here. */
export function ToldAddress({ address }: { readonly address: string }) {
  return (
    <>
      <ToldOnce what="The address" value={address}>
        <a className="link-line" href={address.replace(/^https?:/, 'webcal:')}>
          Open it in a calendar
        </a>
      </ToldOnce>
      <p className="mt-1.5 text-note leading-4.25 text-ink-2">
        Put it into any program that shows calendars: it asks again each hour. Whoever has it sees what you see of this;
        withdraw it under your account.
      </p>
    </>
  );
}
