import {
  BlogLinks,
  Forwards,
  MendedLinks,
  type Rule,
  type RuleFields,
  Rule as RuleShape,
  Rules,
} from '@grivo/contract';
import { queryOptions, useMutation } from '@tanstack/react-query';
import { call } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { plural } from '../../words/figures.ts';

/** What is read of the links of a blog. */
export const linksRead = {
  whole: (blog: string) =>
    queryOptions({
      queryKey: ['links', blog],
      queryFn: () => call('GET', `/blogs/${blog}/links`, { answer: BlogLinks }),
      // They are looked at in the background.
      refetchInterval: 15_000,
    }),
  rules: (blog: string, find: string, from: number) =>
    queryOptions({
      queryKey: ['links', blog, 'rules', find, from],
      queryFn: () =>
        call('GET', `/blogs/${blog}/links/rules?find=${encodeURIComponent(find)}&from=${from}`, { answer: Rules }),
      placeholderData: (before) => before,
    }),
  forward: (blog: string) =>
    queryOptions({
      queryKey: ['links', blog, 'forward'],
      queryFn: () => call('GET', `/blogs/${blog}/links/forward`, { answer: Forwards }),
    }),
};

/** Everything that is known of the links of a blog is read anew. */
export const linksChanged = (blog: string): Promise<void> =>
  queryClient.invalidateQueries({ queryKey: ['links', blog] });

/** The fields of a rule, without what only the server knows. */
export function fieldsOf({ id: _, rev: __, placed: ___, ...fields }: Rule): RuleFields {
  return fields;
}

/** Changes a rule as it was read. */
export function useChangeRule(blog: string) {
  return useMutation({
    mutationFn: ({ rule, change }: { rule: Rule; change: Partial<RuleFields> }) =>
      call('PUT', `/link-rules/${rule.id}`, {
        body: { ...fieldsOf(rule), ...change },
        rev: rule.rev,
        answer: RuleShape,
      }),
    onSettled: () => linksChanged(blog),
  });
}

/** Leads links elsewhere, or takes them off, in every live article. */
export function useMend(blog: string) {
  return useMutation({
    mutationFn: async (all: readonly { from: string; to: string | null }[]) => {
      const sum: MendedLinks = { articles: 0, updated: 0, left: [] };
      for (const one of all) {
        const { articles, updated, left } = await call('POST', `/blogs/${blog}/links/mend`, {
          body: one,
          answer: MendedLinks,
        });
        sum.articles += articles;
        sum.updated += updated;
        sum.left.push(...left);
      }
      return sum;
    },
    onSettled: () => linksChanged(blog),
  });
}

/** What was done to articles and their posts, as a sentence. */
export function mendedInWords({ articles, updated }: MendedLinks): string {
  if (articles === 0 && updated === 0) return 'Nothing was left to change.';
  if (updated === articles) return `${plural(articles, 'article')} changed, here and on the blog.`;
  return `${plural(articles, 'article')} changed here, ${plural(updated, 'post')} brought up to date on the blog.`;
}

const TIMES = ['never', 'once', 'twice'];
export const times = (n: number): string => TIMES[n] ?? `${n} times`;

/** Letters of an address that lists have room for. */
const ROOM = 38;

/** An address without what all have, its middle left out where it is long: its end tells it from others. */
export function shortAddress(address: string, room = Number.POSITIVE_INFINITY): string {
  const short = address.replace(/^https?:\/\/(?:www\.)?/, '').replace(/\/$/, '');
  if (short.length <= room) return short;
  const [host = '', ...path] = short.split('/');
  // What is asked along with it is said where there is room for all.
  const end = (path.at(-1) ?? '').split('?', 1)[0]!;
  return `${host}/…/${end.length > room - host.length - 3 ? `…${end.slice(-Math.max(8, room - host.length - 4))}` : end}`;
}

export const inList = (address: string): string => shortAddress(address, ROOM);
