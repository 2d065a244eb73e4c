import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type KeyboardEvent, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { read } from '../api/queries.ts';
import { Key } from '../design/index.ts';
import { SOURCES } from '../words/sources.ts';
import { useShell } from './keys.ts';
import { VIEWS } from './views.ts';

interface Found {
  id: string;
  group: 'Go to' | 'Do';
  says: string;
  right: string;
  made: boolean;
  does: () => void;
}

const MOST = 9;

/** Without case and accents, as titles are found. */
const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

/** Everything there is to go to or to do, by its name. */
function useFindable(typed: string): readonly Found[] {
  const { finding, showKeys } = useShell();
  const client = useQueryClient();
  const go = useNavigate();
  const pipelines = useQuery({ ...read.pipelines(), enabled: finding }).data?.pipelines;
  const sources = useQuery({ ...read.sources(), enabled: finding }).data?.sources;
  const blogs = useQuery({ ...read.blogs(), enabled: finding }).data?.blogs;
  const title = useDeferredValue(typed.trim().slice(0, 200));
  const titled = new URLSearchParams(title === '' ? {} : { title });
  const articles = useQuery({ ...read.someArticles(String(titled), MOST), enabled: finding }).data?.articles;
  return useMemo(() => {
    const to = (path: string) => () => void go(path);
    const item = (id: string, says: string, right: string, path: string, made = false): Found => ({
      id,
      group: 'Go to',
      says,
      right,
      made,
      does: to(path),
    });
    const does = (id: string, says: string, right: string, act: () => void): Found => ({
      id,
      group: 'Do',
      says,
      right,
      made: false,
      does: act,
    });
    return [
      ...VIEWS.map(({ path, name }) => item(path, name, 'view', path)),
      item('/articles/pictures', 'Pictures', 'view', '/articles/pictures'),
      item('/settings', 'Settings', 'view', '/settings'),
      ...(pipelines ?? []).map(({ id, name }) => item(id, name, 'pipeline', `/pipelines/${id}`)),
      ...(sources ?? []).map(({ id, name, kind }) => item(id, name, SOURCES[kind].says, `/intake/${id}`)),
      ...(blogs ?? []).map(({ id, name }) => item(id, name, 'blog', `/blogs/${id}`)),
      ...(blogs ?? []).map(({ id, name }) => item(`links ${id}`, `Links of ${name}`, 'links', `/blogs/${id}/links`)),
      ...(articles ?? []).map(({ id, title, standing }) => item(id, title, standing, `/articles/${id}`, true)),
      does('new-pipeline', 'Make a pipeline', 'in Pipelines', to('/pipelines?new')),
      does('new-list', 'Make a keyword list', 'in Intake', to('/intake?new')),
      does('new-blog', 'Connect a blog', 'in Blogs', to('/blogs?new')),
      does('new-service', 'Connect a writer or illustrator', 'in Settings', to('/settings')),
      does('keys', 'Show the keys', '?', () => showKeys(true)),
      does('read-again', 'Load everything again', '', () => void client.invalidateQueries()),
    ];
  }, [pipelines, sources, blogs, articles, go, showKeys, client]);
}

/** Finds views and things by their names, and does commands; opened by '/'. */
export function CommandField() {
  const { finding, find } = useShell();
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const field = useRef<HTMLInputElement>(null);
  const all = useFindable(text);
  useEffect(() => {
    if (finding) field.current?.focus();
  }, [finding]);
  const close = () => {
    find(false);
    setText('');
    setAt(0);
    field.current?.blur();
  };
  const hits = useMemo(() => {
    const words = plain(text).trim().split(/\s+/);
    return all.filter(({ says }) => words.every((word) => plain(says).includes(word))).slice(0, MOST);
  }, [all, text]);
  const choose = (hit: Found) => {
    hit.does();
    close();
  };
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Escape') close();
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setAt((n) => (n + (event.key === 'ArrowDown' ? 1 : -1) + hits.length) % Math.max(1, hits.length));
    } else if (event.key === 'Enter' && hits[at]) choose(hits[at]);
  };
  return (
    <div className="relative w-[216px]">
      <div className="flex h-7 items-center border-b border-rule-strong">
        <input
          ref={field}
          role="combobox"
          aria-label="Find or do"
          aria-expanded={finding}
          aria-controls="found"
          aria-activedescendant={finding && hits[at] ? `found-${hits[at].id}` : undefined}
          placeholder="Find or do…"
          className="w-full bg-transparent outline-none placeholder:text-ink-3 focus:bg-marker-wash"
          value={text}
          onFocus={() => find(true)}
          onBlur={() => find(false)}
          onChange={(event) => {
            setText(event.target.value);
            setAt(0);
          }}
          onKeyDown={press}
        />
        <Key>{finding ? 'Esc' : '/'}</Key>
      </div>
      {finding ? <Hits hits={hits} at={at} onChoose={choose} /> : null}
    </div>
  );
}

function Hits({ hits, at, onChoose }: { hits: readonly Found[]; at: number; onChoose: (hit: Found) => void }) {
  return (
    <div id="found" role="listbox" aria-label="Found" className="pop absolute right-0 top-9 !w-[340px] !p-1">
      {hits.map((hit, i) => (
        <div key={hit.id}>
          {hits[i - 1]?.group === hit.group ? null : <p className="px-2 pt-1 text-small text-ink-3">{hit.group}</p>}
          {/* biome-ignore lint/a11y/useKeyWithClickEvents: keys are the field's */}
          <div
            id={`found-${hit.id}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            className={`flex cursor-pointer items-baseline justify-between gap-3 px-2 py-0.5 ${i === at ? 'bg-marker' : 'hover:bg-marker-wash'}`}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onChoose(hit)}
          >
            <span className={`truncate ${hit.made ? 'work' : ''}`}>{hit.says}</span>
            <span className={`shrink-0 text-small ${i === at ? 'text-ink' : 'text-ink-3'}`}>{hit.right}</span>
          </div>
        </div>
      ))}
      {hits.length === 0 ? <p className="px-2 py-1 text-ink-3">Nothing was found by that name.</p> : null}
    </div>
  );
}
