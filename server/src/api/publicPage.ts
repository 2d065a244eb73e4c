import { type ArticleDocument, type Block, blockText, directionOf } from '@grivo/core';

const STYLE = `body{max-width:42rem;margin:0 auto;padding:2rem 1rem;font:18px/1.6 Georgia,serif;color:#1c1a17;background:#fffefb}h1{font-size:2rem;line-height:1.2}
img{max-width:100%;height:auto}table{border-collapse:collapse;width:100%}th,td{padding:.3em .6em;border-bottom:1px solid #d8d2c6;text-align:start;vertical-align:top}
blockquote{margin:1em 0;padding-inline-start:1em;border-inline-start:3px solid #d8d2c6}figure{margin:1.5em 0}figcaption,.note{font-size:.85rem;color:#5c574f}a{color:#1f4e79}
.said{margin-top:3rem;border-top:1px solid #1c1a17;font-size:1rem}.said h2{font-size:1.2rem}.said label{display:block;margin:.8em 0 .2em}.said input,.said select,.said textarea{font:inherit;width:100%;box-sizing:border-box;padding:.4em;border:1px solid #5c574f;background:#fff}
.said button{font:inherit;margin-top:1em;padding:.4em 1.2em;border:1px solid #1c1a17;background:#1c1a17;color:#fffefb}.said li{margin-bottom:.8em}.done{color:#5c574f}`;

/** Words of a paragraph by which it is chosen. */
const NAMED_BY = 9;

export const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** A page that runs nothing. */
export function publicPage({ language, title, body }: { language: string; title: string; body: string }): string {
  return `<!doctype html><html lang="${escaped(language)}" dir="${directionOf(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><title>${escaped(title)}</title><style>${STYLE}</style></head><body><main><h1>${escaped(title)}</h1>${body}</main></body></html>`;
}

export interface SaidByGuest {
  block: string;
  guest: string;
  words: string;
  done: boolean;
}

/** An article for whoever has its address; with a form to say something of it, where that is allowed. */
export function sharedPage(
  { title, description, language, body }: ArticleDocument,
  html: string,
  said: { to: string; comments: readonly SaidByGuest[] } | null,
): string {
  const note = said
    ? 'Shared for reading and for your comments. Whoever has this address can read it, and what is said here.'
    : 'Shared for reading. Whoever has this address can read it.';
  const whole = `<p><em>${escaped(description)}</em></p>${html}${said ? form(body, said) : ''}<p class="note" lang="en" dir="ltr">${note}</p>`;
  return publicPage({ language, title, body: whole });
}

function form(body: readonly Block[], { to, comments }: { to: string; comments: readonly SaidByGuest[] }): string {
  const named = body.flatMap((block) => {
    const words = blockText(block).split(/\s+/).filter(Boolean);
    if (words.length === 0) return [];
    return [{ id: block.id, says: `${words.slice(0, NAMED_BY).join(' ')}${words.length > NAMED_BY ? ' …' : ''}` }];
  });
  const nameOf = (id: string) => named.find((one) => one.id === id)?.says ?? 'a part that was changed since';
  const list = comments
    .map(
      ({ block, guest, words, done }) =>
        `<li${done ? ' class="done"' : ''}><strong>${escaped(guest)}</strong> on ‘${escaped(nameOf(block))}’: ${escaped(words)}${done ? ' (done)' : ''}</li>`,
    )
    .join('');
  const options = named.map(({ id, says }) => `<option value="${escaped(id)}">${escaped(says)}</option>`).join('');
  return `<section class="said" id="said" lang="en" dir="ltr"><h2>What is said of it</h2>${list === '' ? '<p>Nothing yet.</p>' : `<ul>${list}</ul>`}
<form method="post" action="${escaped(to)}"><label for="block">About</label><select id="block" name="block">${options}</select>
<label for="words">What you would say of it</label><textarea id="words" name="words" rows="4" maxlength="2000" required></textarea>
<label for="name">Your name</label><input id="name" name="name" maxlength="60" autocomplete="name"><button type="submit">Say it</button></form></section>`;
}
