import { useQuery } from '@tanstack/react-query';
import { read } from '../api/queries.ts';
import { ChoiceWord } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { useLabel } from './label.ts';

/** What everything is looked at by: a client or a theme, or all of them; not there while nothing carries a label. */
export function LabelChoice() {
  const labels = useQuery(read.labels()).data?.labels ?? [];
  const { label, name, only } = useLabel();
  if (labels.length === 0) return null;
  return (
    <span className="mr-5 max-w-[180px] truncate text-small" data-label={label ?? ''}>
      <ChoiceWord
        label="What is shown"
        value={label ?? ''}
        options={[
          { value: '', says: 'everything', does: 'whatever label it carries' },
          ...labels.map(({ id, name: says, on }) => ({
            value: id,
            says: `only ${says}`,
            does: [
              plural(on.pipeline ?? 0, 'pipeline'),
              plural(on.source ?? 0, 'source'),
              plural(on.blog ?? 0, 'blog'),
            ].join(', '),
          })),
        ]}
        onChoose={(chosen) => only(chosen === '' ? null : chosen)}
      >
        {name === null ? 'everything' : `only ${name}`}
      </ChoiceWord>
    </span>
  );
}
