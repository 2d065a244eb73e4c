import type { SourceWhole } from '@grivo/contract';
import type { ReactNode } from 'react';
import { KeepMenu } from '../keeping/KeepMenu.tsx';

/** The head of a source's page: its name or that of the thing shown of it, what it is, and what can be done with it. */
export function SourceHead({
  source,
  title = source.name,
  says = null,
  children,
}: {
  source: SourceWhole;
  title?: string;
  says?: ReactNode;
  /** What can be done with it, beside what can be done with every source. */
  children?: ReactNode;
}) {
  return (
    <>
      <div className="flex min-h-[56px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 py-2">
        <h1 className="max-w-[45%] truncate text-title font-semibold tracking-[-0.018em]" title={title}>
          {title}
        </h1>
        <span className="min-w-0 flex-1 truncate text-ink-3">
          {says}
          {source.archived ? ', archived' : ''}
        </span>
        <span className="flex shrink-0 items-center gap-4">{children}</span>
        <KeepMenu of="sources" it={source} />
      </div>
      {source.note ? <p className="pb-2 text-small text-ink-2">{source.note}</p> : null}
    </>
  );
}
