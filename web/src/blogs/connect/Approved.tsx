import { MadeBlog } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { Link, useSearchParams } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { Head, Loading, Trouble } from '../../design/index.ts';
import { TestLines } from '../TestLines.tsx';

/** Where the owner of a blog comes back to after approving there: the blog is connected and tested. */
export default function Approved() {
  const [query] = useSearchParams();
  const begun = useRef(false);
  const end = useMutation({
    mutationFn: () =>
      call('POST', '/blogs/approvals/end', {
        body: {
          state: query.get('state') ?? '',
          code: query.get('code') ?? '',
          error: query.get('error') ?? '',
          iss: query.get('iss'),
        },
        answer: MadeBlog,
      }),
    onSuccess: () => {
      for (const key of ['blogs', 'slots', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  const { mutate } = end;
  useEffect(() => {
    // What came back is good once.
    if (!begun.current) mutate();
    begun.current = true;
  }, [mutate]);
  if (end.isError)
    return (
      <div className="pt-4">
        <h1 className="text-title font-semibold">Not approved</h1>
        <Trouble>{inWords(end.error)}</Trouble>
        <p className="pt-3">
          <Link to="/blogs" className="act brackets">
            Back to the blogs
          </Link>
        </p>
      </div>
    );
  if (!end.data)
    return (
      <div className="pt-4">
        <p className="pb-2">Asking the blog for its secret, and testing it with a draft …</p>
        <Loading label="Asking the blog" />
      </div>
    );
  return (
    <div className="max-w-[640px] pt-4">
      <h1 className="text-title font-semibold">Approved</h1>
      <p className="pt-2">
        {end.data.joined ? 'The blog was connected already: it has the new secret now.' : 'The blog is connected.'}{' '}
        <Link to={`/blogs/${end.data.id}`} className="act brackets">
          Look at it
        </Link>
      </p>
      <Head title="Test" />
      <TestLines lines={end.data.lines} />
    </div>
  );
}
