import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useImperativeHandle } from 'react';
import { Route, Routes } from 'react-router';
import { Toaster } from 'sonner';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LetterInput, NoticeLetter } from '../../../contract/index.ts';
import type { LetterBlock } from '../../../core/index.ts';
import { NADIA, show, write } from '../../testing/show.tsx';
import type { LetterEditorHandle } from './letter-editor.tsx';
import { LettersPage } from './letters-page.tsx';

/** The editor is written in by a journey (`notices.spec.ts`): here what it hands on stands in a plain field. */
vi.mock('./letter-editor.tsx', () => ({
  default: function Editor(props: {
    ref: React.Ref<LetterEditorHandle>;
    label: string;
    body: readonly LetterBlock[];
    onChange: (body: LetterBlock[]) => void;
  }) {
    const text = props.body.map(({ runs }) => runs.map((run) => run.text).join('')).join('\n');
    const put = (next: string) =>
      props.onChange(next.split('\n').map((line) => ({ kind: 'paragraph', runs: [{ text: line }] })));
    useImperativeHandle(props.ref, () => ({ insert: (words) => put(`${text}${words}`) }));
    return <textarea aria-label={props.label} value={text} onChange={({ target }) => put(target.value)} />;
  },
}));

const idOf = (n: number) => `01937000-0000-7000-8000-00000000${n.toString().padStart(4, '0')}`;
const letter = (n: number, name: string, of: Partial<NoticeLetter> = {}): NoticeLetter => ({
  ...{ id: idOf(n), version: n, name, workType: null, language: 'en-GB', subject: 'Our visit on {date}' },
  ...{ body: [{ kind: 'paragraph', runs: [{ text: 'Dear {contact}, we come for {reason}.' }] }], ...of },
});
const BOARDING = letter(1, 'Boarding notice');
const GAS = letter(2, 'Gas check', { workType: 'safety', language: 'de-DE' });

async function letters(at = '', of: readonly NoticeLetter[] = [BOARDING, GAS], me?: typeof NADIA) {
  const sent: [string, LetterInput | undefined][] = [];
  const keeping = (what: string, id: string) => (body: LetterInput) => {
    sent.push([what, body]);
    return { letter: { ...body, id, version: 9 }, changeId: idOf(900) };
  };
  await show(
    <>
      <Routes>
        <Route path="/tasks/visits/letters/:letterId?" element={<LettersPage />} />
      </Routes>
      <Toaster />
    </>,
    {
      ...(me && { me }),
      path: `/tasks/visits/letters${at}`,
      workspace: { workTypes: ['safety', 'routine'] },
      answers: {
        '/letters': { letters: of },
        'POST /letters': keeping('add', idOf(3)),
        [`PUT /letters/${BOARDING.id}`]: keeping('change', BOARDING.id),
        [`DELETE /letters/${BOARDING.id}`]: () => {
          sent.push(['drop', undefined]);
          return { changeId: idOf(901) };
        },
      },
    },
  );
  return { sent, user: userEvent.setup() };
}
const example = () => within(screen.getByRole('article', { name: 'The letter' }));

beforeEach(() => sessionStorage.clear());

describe('letters that announce visits', () => {
  it('are written by those who plan', async () => {
    await letters('', [], NADIA);
    expect(screen.getByText(/write letters/)).toBeTruthy();
  });

  it('begin with a few sentences where there is none', async () => {
    await letters('', []);
    expect(await screen.findByText('There is no letter yet.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Write the first one' }).getAttribute('href')).toMatch(/\/letters\/new$/);
  });

  it('are listed with what each is for and its language; the first is open, or the one of the address', async () => {
    await letters(`/${GAS.id}`);
    const list = within(await screen.findByRole('navigation', { name: 'Letters' }));
    expect(list.getAllByRole('link').map(({ textContent }) => textContent)).toEqual([
      'Boarding noticeany type, English',
      'Gas checksafety, German',
    ]);
    expect(list.getByRole('link', { current: 'page' }).textContent).toMatch(/^Gas check/);
    expect(await screen.findByLabelText('Type of work it is for')).toHaveProperty('value', 'safety');
  });

  it('are filled in for an example as they are written, a token put in by its button as well', async () => {
    const { user } = await letters();
    expect(example().getByText('Isolde Kestle', { selector: 'p *' })).toBeTruthy();
    write('what it is about', 'Gas on {client}');
    expect(example().getByText(/^Gas on/).parentElement?.textContent).toBe('Gas on Isolde Kestle');
    const said = await screen.findByLabelText('What the letter says');
    await user.click(screen.getByRole('button', { name: '{place}' }));
    expect(said).toHaveProperty('value', 'Dear {contact}, we come for {reason}.{place}');
    expect(example().getByText('berth A4')).toBeTruthy();
  });

  it('are kept with the version that was seen; braces around what is no token are told where they stand', async () => {
    const { sent, user } = await letters();
    await screen.findByLabelText('What the letter says');
    write('what it is about', 'Gas on {boat}');
    await user.click(screen.getByRole('button', { name: 'Keep the letter' }));
    expect(screen.getByText(/boat/, { selector: '.field-error, .field-error *' })).toBeTruthy();
    expect(sent).toEqual([]);
    write('what it is about', 'Gas');
    await user.selectOptions(screen.getByLabelText('Type of work it is for'), 'routine');
    await user.click(screen.getByRole('button', { name: 'Keep the letter' }));
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]).toEqual(['change', expect.objectContaining({ version: 1, subject: 'Gas', workType: 'routine' })]);
    expect(await screen.findByText('The letter “Boarding notice” is kept.')).toBeTruthy();
  });

  it('that are new need a name; then they stand at an address of their own', async () => {
    const { sent, user } = await letters('/new');
    await screen.findByLabelText('What the letter says');
    await user.click(screen.getByRole('button', { name: 'Add the letter' }));
    expect(sent).toEqual([]);
    write('Name of the letter', ' Winter visit ');
    await user.click(screen.getByRole('button', { name: 'Add the letter' }));
    await waitFor(() => expect(sent.length).toBe(1));
    expect(sent[0]?.[1]).toMatchObject({ name: 'Winter visit', language: 'en-GB', workType: null });
  });

  it('are put back, and dropped', async () => {
    const { sent, user } = await letters();
    write('what it is about', 'Gas');
    await user.click(screen.getByRole('button', { name: 'Put back' }));
    expect(screen.getByLabelText('what it is about')).toHaveProperty('value', 'Our visit on {date}');
    await user.click(screen.getByRole('button', { name: 'Drop the letter' }));
    await waitFor(() => expect(sent).toEqual([['drop', undefined]]));
    expect(await screen.findByText('The letter “Boarding notice” is dropped.')).toBeTruthy();
  });
});
