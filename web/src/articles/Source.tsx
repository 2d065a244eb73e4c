import type { ArticleWhole } from '@grivo/contract';
import { articlePlain } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { Button, Loading, Trouble } from '../design/index.ts';
import { copyRich, copyText } from '../words/copy.ts';
import { count } from '../words/figures.ts';
import { EditText } from './EditText.tsx';
import { fileName } from './SaveCopy.tsx';

/** An article as the text it is published from: shown, edited, copied and saved. */
export function Source({ article, as }: { article: ArticleWhole; as: 'markdown' | 'html' }) {
  const { id, title, busy } = article;
  const text = useQuery({
    queryKey: ['article', id, as],
    queryFn: async () => {
      const response = await fetch(`/api/articles/${id}/text?as=${as}`);
      if (!response.ok) await call('GET', `/articles/${id}/text?as=${as}`);
      return response.text();
    },
  });
  if (text.isPending) return <Loading />;
  if (text.isError) return <Trouble>{inWords(text.error)}</Trouble>;
  const { data } = text;
  return (
    <div className="px-8 pb-8">
      <div className="flex items-baseline gap-4 border-t border-ink py-2 text-small">
        <span className="text-ink-3">{count(data.length)} characters</span>
        <EditText id={id} title={title} busy={busy} as={as} />
        <Copying says="Copy it all" onCopy={() => copyText(data)} />
        {as === 'html' ? (
          <Copying says="Copy it for a word processor" onCopy={() => copyRich(data, articlePlain(article.document))} />
        ) : null}
        <a
          className="act brackets"
          download={`${fileName(title)}.${as === 'html' ? 'html' : 'md'}`}
          href={URL.createObjectURL(new Blob([data], { type: as === 'html' ? 'text/html' : 'text/markdown' }))}
        >
          Save as a file
        </a>
      </div>
      <pre className="overflow-auto border border-rule bg-sheet p-4 font-mono text-[12px] leading-[18px] whitespace-pre-wrap">
        {data}
      </pre>
    </div>
  );
}

/** A press that copies, and what came of it. */
function Copying({ says, onCopy }: { says: string; onCopy: () => Promise<void> }) {
  const [came, setCame] = useState<'copied' | Error | null>(null);
  return (
    <>
      <Button
        look="word"
        anyone
        onClick={() =>
          void onCopy().then(
            () => setCame('copied'),
            (error: Error) => setCame(error),
          )
        }
      >
        {came === 'copied' ? 'Copied' : says}
      </Button>
      {came instanceof Error ? <Trouble>{came.message}</Trouble> : null}
    </>
  );
}
