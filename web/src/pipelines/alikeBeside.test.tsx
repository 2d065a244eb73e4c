// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { AlikeBeside } from './AlikeBeside.tsx';

it('sentences stand beside those they are like: ours lead to their article, what is the same is not said twice', () => {
  onScreen(
    <AlikeBeside
      alike={[
        { here: 'Clay is wedged first.', there: 'Clay is wedged first.', in: 'A bowl', article: 'a1' },
        { here: 'Then it dries for a week.', there: 'It dries for a week then.', in: 'The old shop', article: null },
      ]}
    />,
  );
  expect(screen.getByRole('link', { name: 'A bowl' }).getAttribute('href')).toBe('/articles/a1');
  expect(screen.getAllByText('Clay is wedged first.')).toHaveLength(1);
  expect(screen.getByText(/word for word/)).toBeDefined();
  expect(screen.getByText('It dries for a week then.')).toBeDefined();
  expect(screen.queryByRole('link', { name: 'The old shop' })).toBeNull();
});

it('nothing stands there where nothing is alike, or what was kept cannot be read', () => {
  onScreen(<AlikeBeside alike={undefined} />);
  onScreen(<AlikeBeside alike={[{ here: 1 }]} />);
  expect(document.querySelector('table')).toBeNull();
});
