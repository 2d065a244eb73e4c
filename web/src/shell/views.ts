/** The views there are, in the order of the masthead, each with the key that goes there after G. */
export const VIEWS = [
  { path: '/', name: 'Today', key: 't' },
  { path: '/pipelines', name: 'Pipelines', key: 'p' },
  { path: '/intake', name: 'Intake', key: 'i' },
  { path: '/articles', name: 'Articles', key: 'a' },
  { path: '/cadence', name: 'Cadence', key: 'c' },
  { path: '/blogs', name: 'Blogs', key: 'b' },
  { path: '/styles', name: 'House style', key: 'h' },
] as const;

/** Which view an address belongs to. */
export function viewOf(path: string): string {
  return VIEWS.find(({ path: p }) => p !== '/' && path.startsWith(p))?.path ?? (path === '/' ? '/' : '');
}
