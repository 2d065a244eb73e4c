// @vitest-environment jsdom
import type { EditableAs } from '@grivo/contract';
import { screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, it, vi } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { articleWhole, id } from '../testing/samples.ts';
import { EditText } from './EditText.tsx';

// An editor of code needs sizes that this page has not.
vi.mock('../design/SourceText.tsx', () => ({
  default: ({ value, label, onChange }: { value: string; label: string; onChange: (text: string) => void }) => (
    <textarea aria-label={label} value={value} onChange={(event) => onChange(event.target.value)} />
  ),
}));

const path = `/articles/${id('a')}/editable`;
const shown = (put: Answer, revision = id('r'), as: EditableAs = 'markdown') =>
  onScreen(<EditText id={id('a')} title="Gut or steel" busy={null} as={as} />, {
    [`GET ${path}?as=${as}`]: { revision, text: 'Gut answers sooner.', language: 'en' },
    [`PUT ${path}`]: put,
  });
const field = () => screen.findByRole<HTMLTextAreaElement>('textbox', { name: 'The text in Markdown' });

beforeEach(() => {
  localStorage.clear();
  queryClient.clear();
  queryClient.setDefaultOptions({ queries: { retry: false } });
});

it('what is typed is kept by one press, and then the browser keeps nothing of it', async () => {
  const { hands, asked } = shown({ revision: id('s'), document: articleWhole().document });
  await hands.click(screen.getByRole('button', { name: 'Edit it here' }));
  expect((await screen.findByRole<HTMLButtonElement>('button', { name: 'Keep it' })).disabled).toBe(true);
  await hands.type(await field(), ' Steel holds.');
  await hands.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(asked[0]!.body).toMatchObject({ base: id('r'), text: 'Gut answers sooner. Steel holds.' });
  expect(localStorage.length).toBe(0);
});

it('a closed dialog loses nothing, and what cannot be read says so', async () => {
  const { hands } = shown(() => new Problem(422, 'A table has no second row.'));
  await hands.click(screen.getByRole('button', { name: 'Edit it here' }));
  await hands.type(await field(), ' More.');
  await hands.keyboard('{Escape}');
  await hands.click(screen.getByRole('button', { name: 'Go on editing it' }));
  expect((await field()).value).toBe('Gut answers sooner. More.');
  await hands.click(screen.getByRole('button', { name: 'Keep it' }));
  await screen.findByText('A table has no second row. Try.');
  await hands.click(screen.getByRole('button', { name: 'Leave it as it was' }));
  expect((await field()).value).toBe('Gut answers sooner.');
});

it('where somebody was quicker, what was typed stays and may be the newest', async () => {
  localStorage.setItem(`grivo text markdown ${id('a')}`, JSON.stringify({ base: id('o'), text: 'Steel is loud.' }));
  const { hands, asked } = shown({ revision: id('s'), document: articleWhole().document });
  await hands.click(screen.getByRole('button', { name: 'Go on editing it' }));
  await screen.findByText(/The article was changed since you began/);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).disabled).toBe(true);
  await hands.click(screen.getByRole('button', { name: 'let yours be the newest' }));
  await hands.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(asked[0]!.body).toMatchObject({ base: id('r'), text: 'Steel is loud.' }));
});

it('the same as HTML is kept as HTML, and what is typed of it lies apart from the Markdown', async () => {
  localStorage.setItem(`grivo text markdown ${id('a')}`, JSON.stringify({ base: id('r'), text: 'Steel is loud.' }));
  const { hands, asked } = shown({ revision: id('s'), document: articleWhole().document }, id('r'), 'html');
  await hands.click(screen.getByRole('button', { name: 'Edit it here' }));
  const field = await screen.findByRole<HTMLTextAreaElement>('textbox', { name: 'The text in HTML' });
  expect(field.value).toBe('Gut answers sooner.');
  await hands.type(field, '<p>');
  await hands.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(asked[0]!.body).toMatchObject({ as: 'html', text: 'Gut answers sooner.<p>' }));
});
