import { z } from 'zod';

/** What was said of each item of a gathered brief. */
export const JudgedItems = z.array(
  z.object({ subject: z.string(), score: z.number(), kind: z.string(), reason: z.string(), kept: z.boolean() }),
);
export type JudgedItems = z.infer<typeof JudgedItems>;

/** Items with their scores, the dropped ones struck, each with its reason. */
export function Judgements({ items }: { items: JudgedItems }) {
  return (
    <ul className="text-small">
      {items.map((item, i) => (
        <li key={i} className="grid grid-cols-[28px_minmax(0,1fr)] border-b border-rule-soft py-0.5">
          <span className="fig font-semibold">{item.score}</span>
          <span className="min-w-0">
            {item.kept ? item.subject : <s className="text-ink-2">{item.subject}</s>}
            <span className="block text-ink-3">
              {item.kind}. {item.reason}
            </span>
          </span>
        </li>
      ))}
    </ul>
  );
}
