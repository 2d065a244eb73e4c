import { Liquid } from 'liquidjs';
import { expect, test } from 'vitest';
import type { ProcedureDocument } from '../procedure/document.ts';
import { stepKinds } from '../procedure/registry.ts';
import { unreadableTexts } from '../procedure/unreadable.ts';
import { fillTemplate, TEMPLATE_FILTERS, TEMPLATE_TAGS, templateFields } from './template.ts';

/** Ways to write each tag that names another text. */
const reads = (tag: string): string[] => [
  `{% ${tag} 'package.json' %}`,
  `{%- ${tag} "./package.json" -%}`,
  `{% ${tag} '../../etc/passwd' %}{% end${tag} %}`,
  `{% liquid\n ${tag} 'package.json' %}`,
  `{% assign f = 'package.json' %}{% ${tag} f %}`,
  `{% for i in (1..2) %}{% ${tag} 'package.json' with i %}{% endfor %}`,
];

const library = new Liquid();
const FIELDS = { subject: 'salt', list: ['a', 'b'], record: { name: 'n' }, hostile: '%99999999d' };

test('every tag the library knows is listed or not there; none reads a file', () => {
  for (const tag of Object.keys(library.tags))
    for (const text of reads(tag)) {
      const filled = fillTemplate(text, FIELDS);
      const said = filled.ok ? filled.text : filled.problem;
      expect(said, text).not.toMatch(/"workspaces"|"name"|root:/);
      if (!TEMPLATE_TAGS.includes(tag)) expect(templateFields(text), text).toMatchObject({ ok: false });
    }
  expect(
    Object.keys(library.tags)
      .filter((tag) => !TEMPLATE_TAGS.includes(tag))
      .sort(),
  ).toEqual(['block', 'include', 'layout', 'render']);
});

test('every filter the library knows, with hostile arguments, ends soon in a text or a problem', () => {
  for (const filter of [...Object.keys(library.filters), 'constructor', '__proto__', 'toString'])
    for (const args of ['', ': 999999999', ': hostile', ": 'x', 99999999", ': list, list', ': record']) {
      const text = `{{ hostile | ${filter}${args} }}{{ list | ${filter}${args} }}`;
      const filled = fillTemplate(text, FIELDS);
      if (!TEMPLATE_FILTERS.includes(filter)) expect(filled.ok, text).toBe(false);
      else if (filled.ok) expect(filled.text.length, text).toBeLessThan(10_000);
      else expect(filled.problem.length, text).toBeLessThan(300);
    }
});

test('what would run for ever or grow without end is given up', () => {
  for (const text of [
    '{% for i in (1..999999999) %}a{% endfor %}',
    "{% assign a = 'x' %}{% for i in (1..60) %}{% assign a = a | append: a %}{% endfor %}{{ a }}",
    '{% tablerow i in (1..99999999) %}{{ i }}{% endtablerow %}',
    "{{ 'now' | date: hostile }}",
  ])
    expect(fillTemplate(text, FIELDS), text).toMatchObject({ ok: false });
});

test('a procedure with a text that would read a file is told with step and word, in every word that takes a text', () => {
  const evil = "{% include 'package.json' %}";
  for (const kind of Object.values(stepKinds)) {
    const fresh = kind.fresh('s1');
    for (const [word, value] of Object.entries(fresh)) {
      if (typeof value !== 'string' || word === 'id' || word === 'kind') continue;
      const step = { ...fresh, [word]: evil } as never;
      const taken = kind.uses?.(step).some(({ as, text }) => as === 'template' && text === evil) ?? false;
      const found = unreadableTexts({ grivo: 1, language: 'en', steps: [step] } as ProcedureDocument);
      expect(found.length, `${kind.kind}.${word}`).toBe(taken ? 1 : 0);
      if (taken) expect(found[0]!.problem).toContain('include');
    }
  }
});
