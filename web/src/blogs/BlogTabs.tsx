import { Link } from 'react-router';
import { useEdits } from '../api/role.ts';

const TABS = [
  { at: 'blog', says: 'Blog', path: '' },
  { at: 'links', says: 'Links', path: '/links' },
] as const;

/** The pages a blog has. */
export function BlogTabs({ id, at }: { id: string; at: 'blog' | 'links' }) {
  // Editors read a blog and change its links; proofreaders have neither.
  const edits = useEdits();
  if (!edits) return null;
  return (
    <nav aria-label="Pages of the blog" className="flex gap-5 whitespace-nowrap">
      {TABS.map((tab) => (
        <Link
          key={tab.at}
          to={`/blogs/${id}${tab.path}`}
          aria-current={tab.at === at ? 'page' : undefined}
          className={`brackets ${tab.at === at ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
        >
          {tab.says}
        </Link>
      ))}
    </nav>
  );
}
