import { useQuery } from '@tanstack/react-query';
import { read } from '../api/queries.ts';
import { Head } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { plural } from '../words/figures.ts';

/** Every label, to be renamed and removed; they are put on where things are. */
export function LabelList() {
  const labels = useQuery(read.labels()).data?.labels ?? [];
  return (
    <section aria-label="Labels">
      <Head title="Labels" right={plural(labels.length, 'label')} />
      {labels.length === 0 ? (
        <p className="text-small text-ink-3">
          None yet. A label names a client or a theme; you put it on a pipeline, a source or a blog there, under ‘more’.
        </p>
      ) : null}
      <ul>
        {labels.map(({ id, name, on }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-3 border-b border-rule-soft py-1">
            <span className="font-medium">{name}</span>
            <span className="text-small text-ink-3">
              on {plural(on.pipeline ?? 0, 'pipeline')}, {plural(on.source ?? 0, 'source')} and{' '}
              {plural(on.blog ?? 0, 'blog')}
            </span>
            <span className="ml-auto flex flex-wrap justify-end">
              <KeepMenu of="labels" it={{ id, name }} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
