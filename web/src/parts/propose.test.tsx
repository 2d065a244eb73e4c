// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { useState } from 'react';
import { beforeEach, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { Variants } from './Propose.tsx';

beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

function Typed() {
  const [texts, setTexts] = useState(['{Plain|Fine} salt']);
  return (
    <>
      <ul>
        {texts.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
      <Variants texts={texts} onProposed={(more) => setTexts([...texts, ...more])} />
    </>
  );
}

const shown = (proposed: Answer) =>
  onScreen(<Typed />, { 'POST /texts/proposed/price': { micros: 1_200_000 }, 'POST /texts/proposed': proposed });

it('says how many texts there are and some of them; what the writer proposes is added at a price said first', async () => {
  const { hands } = shown({ texts: ['Salt, weighed'], micros: 900 });
  expect(screen.getByText(/2 possible texts/)).toBeDefined();
  expect(screen.getByText(/Plain salt/)).toBeDefined();
  await hands.click(await screen.findByRole('button', { name: /Have 5 more proposed, about 1.20/ }));
  expect(await screen.findByText('Salt, weighed')).toBeDefined();
  expect(screen.getByRole('status').textContent).toContain('1 text added');
  expect(screen.getByText(/3 possible texts/)).toBeDefined();
});

it('where no writer answers, that is said and nothing is added', async () => {
  const { hands } = shown(() => new Problem(409, 'There is no writer to ask.'));
  await hands.click(await screen.findByRole('button', { name: /Have 5 more/ }));
  expect(await screen.findByText(/There is no writer to ask/)).toBeDefined();
  expect(screen.getAllByRole('listitem')).toHaveLength(1);
});
