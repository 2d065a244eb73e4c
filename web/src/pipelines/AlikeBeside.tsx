import { Link } from 'react-router';
import { z } from 'zod';

const Alike = z.array(
  z.object({ here: z.string(), there: z.string(), in: z.string(), article: z.string().nullable() }),
);

/** Sentences of an article beside those they are like, of its sources and of other articles of ours; nothing where none is. */
export function AlikeBeside({ alike }: { alike: unknown }) {
  const read = Alike.safeParse(alike).data ?? [];
  if (read.length === 0) return null;
  return (
    <table className="mt-2 w-full text-small">
      <thead>
        <tr className="border-b border-rule text-left text-ink-3">
          <th className="w-1/2 py-1 pr-4 font-normal">The article says</th>
          <th className="py-1 font-normal">as it stands in</th>
        </tr>
      </thead>
      <tbody>
        {read.map(({ here, there, in: where, article }) => (
          <tr key={`${where} ${here}`} className="border-b border-rule-soft align-top">
            <td className="py-1 pr-4">{here}</td>
            <td className="py-1">
              {article ? (
                <Link to={`/articles/${article}`} className="work brackets">
                  {where}
                </Link>
              ) : (
                <span className="text-ink-3">{where}</span>
              )}
              {there === here ? ', word for word' : <span className="block">{there}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
