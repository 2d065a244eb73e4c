import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useDeferredValue, useState } from 'react';
import { read } from '../api/queries.ts';
import { ChoiceEditor, Word } from '../design/index.ts';
import { count } from '../words/figures.ts';

/** So many stand in the popover; more are found by a word of their title. */
const MOST_SHOWN = 30;

/** A word that stands for an article of ours: the newest are offered, any other is found by its title. */
export function ArticleChoice({
  label,
  value,
  blog = null,
  onChoose,
  children,
}: {
  label: string;
  value: string | null;
  /** Only those of a blog. */
  blog?: string | null;
  onChoose: (article: string) => void;
  children: ReactNode;
}) {
  return (
    <Word
      label={label}
      editor={(close) => (
        <Finder
          value={value}
          blog={blog}
          onChoose={(article) => {
            onChoose(article);
            close();
          }}
        />
      )}
    >
      {children}
    </Word>
  );
}

function Finder({
  value,
  blog,
  onChoose,
}: {
  value: string | null;
  blog: string | null;
  onChoose: (article: string) => void;
}) {
  const [typed, setTyped] = useState('');
  const title = useDeferredValue(typed.trim());
  const wanted = new URLSearchParams({ ...(title === '' ? {} : { title }), ...(blog === null ? {} : { blog }) });
  const found = useQuery(read.someArticles(String(wanted), MOST_SHOWN)).data?.articles;
  return (
    <div className="w-96">
      <input
        className="field mb-2"
        placeholder="Find a title…"
        aria-label="Titles with"
        maxLength={200}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      {found?.length === 0 ? <p className="text-small text-ink-3">No article is called that.</p> : null}
      <ChoiceEditor
        value={value ?? ''}
        options={(found ?? []).map((one) => ({
          value: one.id,
          says: one.title || 'no title yet',
          does: `${count(one.words)} words`,
        }))}
        onChoose={onChoose}
      />
    </div>
  );
}
