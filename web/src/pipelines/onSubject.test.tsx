// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { Given } from './Given.tsx';

const looked = (ours: object | undefined) => ({
  pages: [{ title: 'Sharpening', address: 'https://tools.example/sharp' }],
  passages: ['p:1'],
  carriesWords: 300,
  fitting: { pages: 1, of: 1, lacking: [], unanswered: [] },
  ...(ours ? { ours } : {}),
});
const OURS = { brief: 'b1', pipeline: 'p1', subject: 'sharpening a scythe', article: 'a1', title: 'A scythe, sharp' };

it('an article of ours on the subject is named where pages were looked up, and leads there', () => {
  onScreen(<Given gave={looked(OURS)} />);
  expect(screen.getByText('An article of ours is on the same subject already: ‘A scythe, sharp’.')).toBeDefined();
  expect(screen.getByRole('link', { name: 'open that article' }).getAttribute('href')).toBe('/articles/a1');
});

it('a brief that has no article yet leads to itself; nothing is said where there is none', () => {
  const { unmount } = onScreen(<Given gave={looked({ ...OURS, article: null, title: null })} />);
  expect(screen.getByText(/^Another brief of this blog is on the same subject: ‘sharpening a scythe’/)).toBeDefined();
  expect(screen.getByRole('link', { name: 'open that brief' }).getAttribute('href')).toBe(
    '/pipelines/p1?show=briefs&brief=b1',
  );
  unmount();
  onScreen(<Given gave={looked(undefined)} />);
  expect(screen.queryByText(/same subject/)).toBeNull();
});

it('a check that failed for it says so once, with the way there', () => {
  const failing = ['An article of ours is on the same subject already: ‘A scythe, sharp’'];
  onScreen(<Given gave={{ check: { words: 40, fits: false, failing, ours: OURS } }} />);
  expect(screen.getAllByText(/same subject already/)).toHaveLength(1);
  expect(screen.getByRole('link', { name: 'open that article' })).toBeDefined();
});
