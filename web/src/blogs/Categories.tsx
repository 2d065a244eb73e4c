import type { Blog } from '@grivo/contract';
import { Head } from '../design/index.ts';
import { counted } from '../words/figures.ts';

const MOST = 40;

/** The categories a blog told of. */
export function Categories({ blog: { categories } }: { blog: Blog }) {
  if (!categories) return null;
  return (
    <div className="pt-4">
      <Head title="Categories" right={counted(categories.length)} />
      <p className="pt-2 text-proc">
        {categories.slice(0, MOST).join(', ') || 'It has none yet; those a pipeline names are made.'}
        {categories.length > MOST ? ` and ${counted(categories.length - MOST)} more` : ''}
      </p>
      <p className="pt-1 text-small text-ink-3">As the blog told them with its last test.</p>
    </div>
  );
}

/** What posts on a blog cannot be or carry. */
export function Lacking({ blog: { lacks } }: { blog: Blog }) {
  const cannot = Object.values(lacks);
  if (cannot.length === 0) return null;
  return (
    <div className="pt-6">
      <Head title="What posts here cannot carry" />
      <ul className="pt-2 text-small text-ink-2">
        {cannot.map((one) => (
          <li key={one} className="py-0.5">
            {one}
          </li>
        ))}
      </ul>
    </div>
  );
}
