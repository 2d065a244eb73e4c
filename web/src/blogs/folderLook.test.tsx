// @vitest-environment jsdom
import { FolderLook, LOOK_AS_MADE } from '@grivo/contract';
import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { FolderLookWords } from './FolderLookWords.tsx';

it('colours and the logo of pages are words', async () => {
  const put: FolderLook[] = [];
  const { hands } = onScreen(<FolderLookWords look={LOOK_AS_MADE} onPut={(look) => put.push(look)} />);
  await hands.click(screen.getByRole('button', { name: /^Colour of letters/ }));
  const typed = screen.getByRole('textbox', { name: /as #rrggbb/ });
  await hands.clear(typed);
  await hands.type(typed, '#CCBBAA{Enter}');
  await hands.click(screen.getByRole('button', { name: /^Logo/ }));
  await hands.type(screen.getByRole('textbox', { name: 'Logo' }), 'pictures/bow.svg{Enter}');
  expect(put).toEqual([
    { ...LOOK_AS_MADE, letters: '#ccbbaa' },
    { ...LOOK_AS_MADE, logo: 'pictures/bow.svg' },
  ]);
  expect(screen.queryByText(/hard to read/)).toBeNull();
});

it('letters that cannot be read on their ground are told', () => {
  onScreen(<FolderLookWords look={{ ...LOOK_AS_MADE, letters: '#ccbbaa' }} onPut={() => {}} />);
  expect(screen.getByText(/The letters are hard to read on this ground: they stand out 1\.8 to 1/)).toBeDefined();
});

it.each(['/logo.svg', '../logo.svg', 'a b.svg', 'a.svg");x{'])('%s is no logo', (logo) => {
  expect(FolderLook.safeParse({ ...LOOK_AS_MADE, logo }).success).toBe(false);
});
