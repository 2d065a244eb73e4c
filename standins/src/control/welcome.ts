import { Router } from 'express';
import { escaped } from '../web/pages.ts';
import type { Introduction } from './routes.ts';

/** A group of addresses on the page that says what there is. */
export interface WhatThereIs {
  title: string;
  /** What to do with them. */
  use: string;
  entries: { name: string; address: string; note?: string }[];
}

/** The page at the root: every service, blog and source the stand-ins offer, with the address a person would enter. */
export function welcome(introduce: () => Introduction, others: () => readonly WhatThereIs[]): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    const { services, blogs } = introduce();
    const all: WhatThereIs[] = [
      {
        title: 'Services',
        use: 'To be connected in the settings; each takes the place of a paid service.',
        entries: services.map(({ role, name, address, secret }) => ({
          name: `${name}, ${role}`,
          address,
          note: secret === null ? 'needs no key' : `key ${secret}`,
        })),
      },
      {
        title: 'Blogs',
        use: 'To be connected by their address.',
        entries: blogs.map(({ name, address, secret }) => ({ name, address, note: `key ${secret}` })),
      },
      ...others(),
    ];
    response.type('html').send(page(all.filter(({ entries }) => entries.length > 0)));
  });
  return router;
}

function page(groups: readonly WhatThereIs[]): string {
  const rows = groups.map(
    ({ title, use, entries }) =>
      `<h2>${escaped(title)}</h2><p>${escaped(use)}</p><ul>${entries
        .map(
          ({ name, address, note }) =>
            `<li>${escaped(name)}: <a href="${escaped(address)}">${escaped(address)}</a>${note ? `, ${escaped(note)}` : ''}</li>`,
        )
        .join('')}</ul>`,
  );
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Stand-ins</title></head><body><main><h1>Stand-ins for outside services</h1><p>Everything here is made up and runs on this machine alone. Nothing costs money, and nothing leaves it.</p>${rows.join('')}</main></body></html>`;
}
