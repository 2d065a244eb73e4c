// @vitest-environment jsdom
import type { HouseStyleWhole } from '@grivo/contract';
import { PLAIN_STYLE, ReplacementRule } from '@grivo/core';
import { screen, waitFor } from '@testing-library/react';
import { Navigate, Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../../api/queries.ts';
import { type Asked, onScreen } from '../../testing/onScreen.tsx';
import { id, slots } from '../../testing/samples.ts';
import StylePage from '../StylePage.tsx';
import { readRules, writtenRule } from './ruleLines.ts';

const S = id('s');
beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

const rule = (find: string, say: string, more: Partial<ReplacementRule> = {}): ReplacementRule =>
  ReplacementRule.parse({ find, say, ...more });

describe('rules as people type them', () => {
  it('are read line by line, and come back as they were', () => {
    const text = [
      'utilise => use',
      'really =>',
      '/(\\d+) g\\b/ => $1 grams',
      'jar => crock [same case, not in headings, not in links, in quotations]',
      'note => see [1]',
    ].join('\n');
    const read = readRules(text);
    expect(read).toMatchObject({
      ok: true,
      rules: [
        rule('utilise', 'use'),
        rule('really', ''),
        rule('(\\d+) g\\b', '$1 grams', { pattern: true }),
        rule('jar', 'crock', { cased: true, where: ['quotations'] }),
        rule('note', 'see [1]'),
      ],
    });
    if (read.ok) expect(readRules(read.rules.map(writtenRule).join('\n'))).toEqual(read);
  });

  it.each([
    ['utilise', /Line 1: what is found/],
    ['a => b\n=> c', /Line 2: nothing stands before/],
    [`${'x'.repeat(301)} => y`, /at most 300 letters/],
    ['a => b\n'.repeat(1_001), /1,000 are the most/],
    ['/a/ => b\n'.repeat(101), /100 are the most/],
  ])('%.20s is told wrong', (text, says) => {
    expect(readRules(text)).toEqual({ ok: false, problem: expect.stringMatching(says) });
  });
});

describe('the rules of a house style', () => {
  const A = id('a');
  const shown = (rules: ReplacementRule[], tried: object) => {
    let document = { ...PLAIN_STYLE, rules };
    const style = (): HouseStyleWhole => ({
      id: S,
      name: 'Workshop voice',
      note: '',
      version: 3,
      rev: 3,
      archived: false,
      labels: [],
      document,
      usedBy: [],
      texts: 0,
      samples: [],
      learnt: null,
      sample: null,
    });
    return onScreen(
      <Routes>
        <Route path="/" element={<Navigate to={`/styles/${S}?show=replacements`} />} />
        <Route path="/styles/:id" element={<StylePage />} />
      </Routes>,
      {
        [`GET /styles/${S}`]: style,
        [`PUT /styles/${S}`]: ({ body }: Asked) => {
          ({ document } = body as { document: typeof document });
          return style();
        },
        'GET /articles*': { articles: [{ id: A, title: 'Salt', words: 400 }], next: null },
        'POST /styles/replacements/tried': tried,
        'GET /slots?days=7': slots(),
        'GET /labels': { labels: [] },
      },
    );
  };
  const NOTHING = { title: 'Salt', problems: [], places: [], found: 0 };

  it('say what they do, are added, shifted, copied and taken out', async () => {
    const { hands, asked } = shown([rule('utilise', 'use'), rule('really', '')], NOTHING);
    expect(await screen.findByText('2 rules')).toBeDefined();
    expect(screen.getByRole('button', { name: /What is found: utilise/ })).toBeDefined();
    const kept = () =>
      asked
        .filter(({ method }) => method === 'PUT')
        .map(({ body }) => (body as { document: { rules: ReplacementRule[] } }).document.rules.map(({ find }) => find))
        .at(-1);
    await hands.click(screen.getByRole('button', { name: 'Move up: really' }));
    await waitFor(() => expect(kept()).toEqual(['really', 'utilise']));
    await hands.click(screen.getByRole('button', { name: 'Copy it: really' }));
    await waitFor(() => expect(kept()).toEqual(['really', 'really', 'utilise']));
    await hands.click(screen.getAllByRole('button', { name: 'Take it out: really' })[0]!);
    await waitFor(() => expect(kept()).toEqual(['really', 'utilise']));
    await hands.click(screen.getByRole('button', { name: /A new rule/ }));
    await hands.type(screen.getByRole('textbox', { name: 'A new rule' }), 'no arrow');
    expect(screen.getByText(/what is found, =>/)).toBeDefined();
    await hands.clear(screen.getByRole('textbox', { name: 'A new rule' }));
    await hands.type(screen.getByRole('textbox', { name: 'A new rule' }), 'jar => crock');
    await hands.click(screen.getByRole('button', { name: /Set it/ }));
    await waitFor(() => expect(kept()).toEqual(['really', 'utilise', 'jar']));
  });

  it('are tried on the newest article, place by place, and a pattern that is none is told at its rule', async () => {
    shown([rule('(open', 'x', { pattern: true })], {
      title: 'Salt by weight',
      problems: [{ rule: 0, problem: '“(open” is no pattern: missing closing ).' }],
      places: [{ block: 'p', from: 'utilise', to: 'use', before: 'we ', after: ' salt' }],
      found: 3,
    });
    expect(await screen.findByText(/is no pattern/)).toBeDefined();
    expect(screen.getByText('3 places replaced')).toBeDefined();
    expect(screen.getByText('utilise').tagName).toBe('S');
    expect(screen.getByText('and 2 more.')).toBeDefined();
  });

  it('none yet says what a rule is', async () => {
    shown([], NOTHING);
    expect(await screen.findByText(/Nothing is replaced yet/)).toBeDefined();
  });
});
