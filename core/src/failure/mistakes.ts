/** The usual mistakes in how a blog is connected, each told by how the blog answers. */
export type BlogMistake =
  | 'wrong folder'
  | 'addresses not rewritten'
  | 'unknown host'
  | 'no connection'
  | 'no answer in time'
  | 'empty answer'
  | 'a page instead of an answer'
  | 'firewall'
  | 'certificate'
  | 'secret unknown'
  | 'secret expired'
  | 'may only read'
  | 'wrong user'
  | 'too old'
  | 'pictures refused'
  | 'clock'
  | 'moved'
  | 'no folder'
  | 'folder read-only';

/** What happened, as it goes on from the name of the blog, and what mends it. */
export const MISTAKES: Readonly<Record<BlogMistake, { sentence: string; mend: string }>> = {
  'wrong folder': {
    sentence: 'has nothing at this address',
    mend: 'Check the part of the address after the name: often a folder such as /blog is missing or too much.',
  },
  'addresses not rewritten': {
    sentence: 'names an address for posts that its own server does not know',
    mend: 'Switch on speaking addresses (rewriting of addresses) in the settings of the blog or of its server, then test again.',
  },
  'unknown host': {
    sentence: 'cannot be found: no machine has this name',
    mend: 'Check the name in the address, letter by letter; a new name may take a day until everybody knows it.',
  },
  'no connection': {
    sentence: 'does not take connections',
    mend: 'The server is off, or this port is closed: ask whoever runs it, or try the address without the number after the colon.',
  },
  'no answer in time': {
    sentence: 'did not answer in time',
    mend: 'Test again in a minute; if it is always slow, allow it more time under the time limit of the blog.',
  },
  'empty answer': {
    sentence: 'answered, and said nothing',
    mend: 'The blog’s program broke off: its error log says why, often memory or a broken extension. Ask whoever runs it.',
  },
  'a page instead of an answer': {
    sentence: 'answered with a page for readers where programs are answered',
    mend: 'This is a page of the blog and not the address for posts: enter the blog’s front page, and Grivo looks for it there.',
  },
  firewall: {
    sentence: 'did not see the call: a guard before it answered with a page of its own',
    mend: 'Let the guard (firewall, protection against robots) pass calls from this server to the address for posts.',
  },
  certificate: {
    sentence: 'cannot be called safely: its certificate is not valid',
    mend: 'Have the certificate of the server renewed for this name, then test again.',
  },
  'secret unknown': {
    sentence: 'does not know this secret',
    mend: 'Paste the secret again, whole; make a new one at the blog if it was revoked.',
  },
  'secret expired': {
    sentence: 'knows the secret, and its time is over',
    mend: 'Make a new one at the blog, one that does not end, and paste it here.',
  },
  'may only read': {
    sentence: 'knows the secret, and lets it read only',
    mend: 'Give the secret the right to create, change and delete posts at the blog, or make a new one that has it.',
  },
  'wrong user': {
    sentence: 'does not know this user with this password',
    mend: 'Check the user name (some blogs want it, others the mail address) and the password; many want a password of its own for programs.',
  },
  'too old': {
    sentence: 'does not know what it was asked to do',
    mend: 'The program of the blog is too old for this way, or the way is switched off there: bring it up to date, or connect it another way.',
  },
  'pictures refused': {
    sentence: 'takes posts, and not this picture',
    mend: 'Allow larger files, or this kind of picture, at the blog, and give the secret the right to add pictures.',
  },
  clock: {
    sentence: 'goes by another clock: calls look too old or too new to it',
    mend: 'Set the clock of this server and that of the blog’s right (both can follow a time server), then test again.',
  },
  moved: {
    sentence: 'has moved: posts are sent on to another address, where a secret must not follow',
    mend: 'Enter the address it leads to.',
  },
  'no folder': {
    sentence: 'has no such folder on this server any more',
    mend: 'Make the folder again, or choose another one; whoever runs Grivo names where folders may lie in GRIVO_FOLDERS.',
  },
  'folder read-only': {
    sentence: 'has a folder that must not be written to',
    mend: 'Let the user Grivo runs as write into it.',
  },
};
