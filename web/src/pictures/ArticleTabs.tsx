import { Link } from 'react-router';

const TABS = [
  { at: 'list', says: 'List', path: '/articles' },
  { at: 'pictures', says: 'Pictures', path: '/articles/pictures' },
] as const;

/** The articles, and the pictures they have. */
export function ArticleTabs({ at }: { at: 'list' | 'pictures' }) {
  return (
    <nav aria-label="Articles and pictures" className="flex gap-5 whitespace-nowrap">
      {TABS.map((tab) => (
        <Link
          key={tab.at}
          to={tab.path}
          aria-current={tab.at === at ? 'page' : undefined}
          className={`brackets ${tab.at === at ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
        >
          {tab.says}
        </Link>
      ))}
    </nav>
  );
}
