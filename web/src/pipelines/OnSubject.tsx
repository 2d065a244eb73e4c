import { oursAlready } from '@grivo/core';
import { Link } from 'react-router';
import { z } from 'zod';

/** Something else of ours that is on the subject, as steps tell it. */
const Ours = z.object({
  brief: z.string(),
  pipeline: z.string(),
  subject: z.string(),
  article: z.string().nullable(),
  title: z.string().nullable(),
});

/**
 * The way to what else of ours is on a subject; nothing where nothing is.
 * @param says whether it is also said what it is, where nothing beside it does
 */
export function OnSubject({ ours, says = false }: { ours: unknown; says?: boolean }) {
  const { data } = Ours.safeParse(ours);
  if (!data) return null;
  const { article, brief, pipeline } = data;
  return (
    <span className="block text-small">
      {says && <span className="text-red">{oursAlready(data)} </span>}
      <Link
        to={article ? `/articles/${article}` : `/pipelines/${pipeline}?show=briefs&brief=${brief}`}
        className="act quiet brackets"
      >
        {article ? 'open that article' : 'open that brief'}
      </Link>
    </span>
  );
}
