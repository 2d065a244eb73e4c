import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { beginning, listWords, optional } from '../sentence.ts';

/** What a mail may bring along: the article in a form, and a card with its title. */
export const ATTACHMENTS = ['Markdown', 'HTML page', 'Word', 'PDF', 'a card'] as const;

export const TELL_BY = ['mail', 'message', 'hook'] as const;

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('tell'),
  by: z.enum(TELL_BY),
  /** One that is kept under a name; else what is typed here. */
  destination: z.string().max(20).nullable().default(null),
  /** A mail address, or the address messages and hooks are posted to: a Liquid text. */
  to: z.string().max(1_000),
  subject: z.string().max(300),
  text: instruction,
  attach: z.array(z.enum(ATTACHMENTS)).max(ATTACHMENTS.length).default([]),
});
export type TellStep = z.infer<typeof schema>;

const DOES: Record<TellStep['by'], string> = {
  mail: 'a mail with the text, by the mail server of this installation',
  message: 'the text as JSON, as most chat tools take it',
  hook: 'the article as JSON, signed, for another program',
};

const DESTINATION = { type: 'reference', to: 'destination' } as const;

/** Files go by mail; of a destination that is kept its kind is known when it is told. */
const mayAttach = ({ by, destination }: TellStep): boolean => by === 'mail' || destination !== null;

export const tell: StepKind<'tell', TellStep> = {
  kind: 'tell',
  does: 'sends a mail, a message or a call to a program',
  schema,
  needs: [],
  gives: ['told'],
  uses: (step) => [
    ...(step.destination === null ? [{ field: 'to', as: 'template' as const, text: step.to }] : []),
    ...(step.by === 'hook'
      ? []
      : [
          { field: 'subject', as: 'template' as const, text: step.subject },
          { field: 'text', as: 'template' as const, text: step.text },
        ]),
    ...(mayAttach(step) && step.attach.length > 0 ? [{ field: 'attach', as: 'name' as const, text: 'article' }] : []),
  ],
  calls: null,
  effect: true,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'tell',
    off: false,
    by: 'mail',
    destination: null,
    to: 'editor@example.com',
    subject: '{{ subject }}',
    text: 'Done: {{ subject }}',
    attach: [],
  }),
  sentence: (step, names) => [
    ...(step.destination === null
      ? [
          { text: step.by === 'hook' ? 'Call ' : 'Tell ' },
          { word: beginning(step.to) || 'nobody yet', field: 'to', editor: { type: 'text' as const } },
          { text: ' by ' },
          {
            word: step.by,
            field: 'by',
            editor: {
              type: 'choice' as const,
              options: TELL_BY.map((value) => ({ value, says: value, does: DOES[value] })),
            },
          },
          { word: 'a destination kept in the settings', field: 'destination', editor: DESTINATION, add: true as const },
        ]
      : [
          { text: 'Tell ' },
          { word: names.destination?.(step.destination) ?? '…', field: 'destination', editor: DESTINATION },
        ]),
    ...(step.by === 'hook'
      ? [{ text: ' with the article' }]
      : [
          ...(step.by === 'mail'
            ? [
                { text: ', headed ' },
                { word: beginning(step.subject) || 'nothing', field: 'subject', editor: { type: 'text' as const } },
              ]
            : []),
          { text: ': ' },
          {
            word: beginning(step.text, 80) || 'nothing yet',
            field: 'text',
            editor: { type: 'instruction' as const },
          },
        ]),
    ...(mayAttach(step)
      ? optional(
          step.attach.length > 0,
          ', attached: ',
          { word: listWords(step.attach, ''), field: 'attach', editor: { type: 'list', of: 'attachment' } },
          'the article attached',
        )
      : []),
  ],
  check: (step, context) => {
    const plain = !/[{]/.test(step.to);
    const wrong = (sentence: string, mend: string, field = 'to') => [
      { step: step.id, field, grade: 'error' as const, sentence, mend },
    ];
    if (step.destination !== null)
      return context.hasDestination?.(step.destination) === false
        ? wrong('The destination it tells is not there any more.', 'Choose another one.', 'destination')
        : [];
    if (step.to.trim() === '') return wrong('It has nobody to tell.', 'Say whom.');
    if (step.by === 'mail' && plain && !/^[^@\s]+@[^@\s.]+(?:\.[^@\s.]+)+$/.test(step.to.trim()))
      return wrong(`‘${step.to}’ is not an email address.`, 'Write one as name@example.com.');
    if (step.by !== 'mail' && plain && !/^https?:\/\/\S+$/.test(step.to.trim()))
      return wrong(`‘${step.to}’ is not an address messages can be sent to.`, 'Write one that begins with https://.');
    return [];
  },
};
