// @vitest-environment jsdom
import { chartPlan } from '@grivo/core';
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { ChartPicture } from './ChartPicture.tsx';

afterEach(cleanup);

const data = (form: 'bar' | 'line' | 'dots') => ({
  form,
  labels: ['2019', '2020', '2021'],
  series: [
    { name: 'jars', values: [140, 180, 231] },
    { name: 'crocks', values: [12, 9, 14] },
  ],
});

describe('a chart on the page', () => {
  it.each(['bar', 'line', 'dots'] as const)('has the bars, points, ticks and words of its plan: %s', (form) => {
    render(<ChartPicture data={data(form)} language="en" says="Jars and crocks" />);
    const svg = screen.getByRole('img', { name: 'Jars and crocks' });
    const plan = chartPlan(data(form), 'en');
    const bars = plan.series.flatMap((one) => one.bars);
    const shown = [...svg.querySelectorAll('g > rect')].map((rect) => Number(rect.getAttribute('width')));
    for (const { width } of bars) expect(shown).toContain(width);
    expect(svg.querySelectorAll('circle')).toHaveLength(plan.series.flatMap((one) => one.points).length);
    expect(svg.querySelectorAll('polyline')).toHaveLength(form === 'line' ? 2 : 0);
    const words = [...svg.querySelectorAll('text')].map((text) => text.textContent);
    expect(words.sort()).toEqual(
      [
        ...plan.ticks.map(({ says }) => says),
        ...[...plan.labels, ...plan.figures, ...plan.key].map(({ text }) => text),
      ].sort(),
    );
  });

  it('without figures is nothing, and without words it is called a chart', () => {
    const { container } = render(<ChartPicture data={{ form: 'bar', labels: [], series: [] }} language="en" says="" />);
    expect(container.innerHTML).toBe('');
    render(<ChartPicture data={data('bar')} language="en" says="" />);
    expect(screen.getByRole('img', { name: 'A chart' })).toBeTruthy();
  });
});
