// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { blog } from '../testing/samples.ts';
import { PicturesThere } from './PicturesThere.tsx';

it('pictures go in one width until it is said otherwise, and what that means is said', async () => {
  const one = blog();
  const { hands, asked } = onScreen(<PicturesThere blog={one} />, {
    [`PATCH /blogs/${one.id}`]: { blogs: [{ ...one, settings: { ...one.settings, pictures: 'several' } }], moves: [] },
  });
  expect(screen.getByText(/posts that are out follow by themselves/)).toBeTruthy();
  await hands.click(screen.getByRole('button', { name: /Widths of pictures: in one width/ }));
  expect(screen.getByText(/each reader loads the one that fits the screen/)).toBeTruthy();
  await hands.click(screen.getByRole('radio', { name: /in several widths/ }));
  await waitFor(() =>
    expect(asked).toEqual([{ method: 'PATCH', path: `/blogs/${one.id}`, body: { pictures: 'several' } }]),
  );
});

it('a folder of Markdown takes one width, and says why', () => {
  const one = blog();
  onScreen(<PicturesThere blog={{ ...one, way: 'folder', settings: {} }} />);
  expect(screen.getByText(/Markdown has no words for more/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});
