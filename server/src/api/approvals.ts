import { ApprovalBegun, ApprovalEnd, MadeBlog, NewApproval, type TestLine } from '@grivo/contract';
import type { Request } from 'express';
import { beginApproval, endApproval, type Home } from '../nouns/blogs/approvals.ts';
import { testBlog } from '../nouns/blogs/connect.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { SCOPES } from '../ports/blogs/approval/indieAuth.ts';
import { actorOf } from './access.ts';
import { homeOf } from './base.ts';
import { problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Where this installation describes itself to blogs that are asked for an approval. */
export const CLIENT_PATH = '/client.json';

/** What a blog is told of who asks it (IndieAuth, section 4.2). */
export function clientAt(home: string) {
  return {
    client_id: `${home}${CLIENT_PATH}`,
    client_name: 'Grivo',
    client_uri: `${home}/`,
    redirect_uris: [`${home}/blogs/approved`],
  };
}

/** Blogs connected by their owner’s approval there, in the place of a secret that is pasted. */
export function approvalRoutes(product: Product): Route[] {
  const { ground, bell, secrets, tools } = product;
  const ports = { ground, secrets, tools };
  const home = (request: Request): Home => {
    const at = clientAt(homeOf(product, request));
    return { client: at.client_id, redirect: at.redirect_uris[0]! };
  };
  return [
    route({
      method: 'post',
      path: '/blogs/approvals',
      says: 'Begins an approval at a blog and says where its owner approves',
      role: 'owner',
      body: NewApproval,
      answer: ApprovalBegun,
      handle: async ({ body, person, request }) => {
        const begun = await beginApproval(ports, person.id, body, home(request));
        if (!begun.ok) throw problem(422, 'Cannot be approved there', begun.problem, begun.mend);
        return { address: begun.address };
      },
    }),
    route({
      method: 'post',
      path: '/blogs/approvals/end',
      says: 'Ends an approval with what the owner came back with: connects the blog and tests it',
      role: 'owner',
      body: ApprovalEnd,
      answer: MadeBlog,
      // What comes back is used once, and the answer to it is no secret.
      handle: async ({ body, person, request }) => {
        const ended = await endApproval(ports, person.id, body);
        if (!ended.ok) throw problem(422, 'Not approved', ended.problem, ended.mend);
        const { id, joined, name, may } = ended;
        await noteAct(ground, actorOf(person, request), joined ? 'blog secret changed' : 'blog approved', name);
        bell.ring({ kind: 'settings' });
        const lines = [...lackingIn(may), ...((await testBlog(product, id)) ?? [])];
        bell.ring({ kind: 'event' });
        return { id, joined, lines };
      },
    }),
  ];
}

/** What was asked for and not granted, as a line of the test; none where the blog does not say. */
function lackingIn(may: readonly string[] | null): TestLine[] {
  const lacking = may === null ? [] : SCOPES.filter((one) => !may.includes(one));
  if (lacking.length === 0) return [];
  return [
    {
      tried: 'Asked to be approved',
      came: `It may not ${lacking.map((one) => (one === 'media' ? 'send pictures' : `${one} posts`)).join(', ')}`,
      well: false,
      change: 'Approve it again, and leave everything ticked that is asked for.',
      ms: 0,
    },
  ];
}
