import type { Blog, TestLine } from '@grivo/contract';
import { Mark } from '../design/index.ts';
import { moment, took } from '../words/time.ts';

/** What a test tried, what came back, and what to change, at the line it concerns. */
export function TestLines({ lines }: { lines: readonly TestLine[] }) {
  return (
    <ol className="pt-2">
      {lines.map((line) => (
        <li
          key={line.tried}
          className={`grid grid-cols-[64px_16px_minmax(0,1fr)] border-b border-rule-soft py-2 ${line.well ? '' : '-ml-3 border-l-2 border-l-red pl-2.5'}`}
        >
          <span className="fig leading-5 text-ink-3">{took(line.ms)}</span>
          <span className="pt-0.5">
            <Mark state={line.well ? 'done' : 'stop'} label={line.well ? 'well' : 'failed'} />
          </span>
          <span className="min-w-0">
            {line.tried}
            <span className={`block text-small break-words ${line.well ? 'text-ink-3' : 'text-red'}`}>
              {line.came}
              {line.change ? ` ${line.change}` : ''}
            </span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** Whether a blog's last test went well, and when it was. */
export function Connection({ blog: { test }, now }: { blog: Pick<Blog, 'test'>; now: number }) {
  if (!test)
    return (
      <span className="flex items-center gap-2">
        <Mark state="plan" /> not tested yet
      </span>
    );
  const wrong = test.lines.find(({ well }) => !well);
  return (
    <span className={`flex items-center gap-2 ${wrong ? 'text-red' : ''}`} title={wrong?.came}>
      <Mark state={wrong ? 'stop' : 'done'} />
      {wrong ? 'the connection failed' : 'connected'}, tested {moment(test.atDesk, now)}
    </span>
  );
}
