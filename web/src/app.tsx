import { useQuery } from '@tanstack/react-query';
import { lazy, type ReactNode, Suspense } from 'react';
import { Link, Route, Routes } from 'react-router';
import { Refused } from './api/call.ts';
import { read } from './api/queries.ts';
import { Empty, Loading, Only } from './design/index.ts';
import { Shell } from './shell/Shell.tsx';
import { SignIn } from './shell/SignIn.tsx';
import { TodayPage } from './today/TodayPage.tsx';

const Pipelines = lazy(() => import('./pipelines/Pipelines.tsx'));
const PipelinePage = lazy(() => import('./pipelines/PipelinePage.tsx'));
const RoutinePage = lazy(() => import('./pipelines/RoutinePage.tsx'));
const Intake = lazy(() => import('./intake/Intake.tsx'));
const SourcePage = lazy(() => import('./intake/SourcePage.tsx'));
const Articles = lazy(() => import('./articles/list/Articles.tsx'));
const PicturesPage = lazy(() => import('./pictures/Pictures.tsx'));
const ArticlePage = lazy(() => import('./articles/ArticlePage.tsx'));
const OutsidePage = lazy(() => import('./articles/outside/OutsidePage.tsx'));
const Cadence = lazy(() => import('./cadence/Cadence.tsx'));
const Blogs = lazy(() => import('./blogs/Blogs.tsx'));
const Approved = lazy(() => import('./blogs/connect/Approved.tsx'));
const BlogPage = lazy(() => import('./blogs/BlogPage.tsx'));
const LinksPage = lazy(() => import('./blogs/links/LinksPage.tsx'));
const Styles = lazy(() => import('./styles/Styles.tsx'));
const StylePage = lazy(() => import('./styles/StylePage.tsx'));
const Settings = lazy(() => import('./settings/Settings.tsx'));
const Parts = lazy(() => import('./parts/Parts.tsx'));

/** Every view under the shell; without a session there is only signing in. */
export function App() {
  const session = useQuery(read.session());
  if (session.isPending)
    return <div className="p-8">{session.failureCount > 0 ? 'Grivo does not answer yet.' : null}</div>;
  if (session.isError) {
    const out = session.error instanceof Refused && session.error.problem.status === 401;
    return <SignIn unreached={!out} />;
  }
  const { role } = session.data;
  const edited = (view: ReactNode) => <Only if={role !== 'proofreader'}>{view}</Only>;
  const owned = (view: ReactNode) => <Only if={role === 'owner'}>{view}</Only>;
  return (
    <Shell person={session.data}>
      <Suspense
        fallback={
          <div className="pt-6">
            <Loading />
          </div>
        }
      >
        <Routes>
          <Route path="/" element={<TodayPage />} />
          <Route path="/pipelines" element={edited(<Pipelines />)} />
          <Route path="/pipelines/:id" element={edited(<PipelinePage />)} />
          <Route path="/pipelines/routines/:id" element={edited(<RoutinePage />)} />
          <Route path="/intake" element={edited(<Intake />)} />
          <Route path="/intake/:id" element={edited(<SourcePage />)} />
          <Route path="/articles" element={<Articles />} />
          <Route path="/articles/pictures" element={edited(<PicturesPage />)} />
          <Route path="/articles/:id" element={<ArticlePage />} />
          <Route path="/articles/:id/outside/:publication" element={edited(<OutsidePage />)} />
          <Route path="/cadence" element={edited(<Cadence />)} />
          <Route path="/blogs" element={owned(<Blogs />)} />
          <Route path="/blogs/approved" element={owned(<Approved />)} />
          <Route path="/blogs/:id" element={owned(<BlogPage />)} />
          <Route path="/blogs/:id/links" element={edited(<LinksPage />)} />
          <Route path="/styles" element={edited(<Styles />)} />
          <Route path="/styles/:id" element={edited(<StylePage />)} />
          <Route path="/settings" element={<Settings />} />
          <Route path="/design" element={<Parts />} />
          <Route path="*" element={<NotHere />} />
        </Routes>
      </Suspense>
    </Shell>
  );
}

/** An address that was mistyped, or copied in part. */
function NotHere() {
  return (
    <>
      <h1 className="pt-5 text-title font-semibold tracking-[-0.018em]">No such page</h1>
      <Empty
        next={
          <Link className="act brackets" to="/">
            Go to Today
          </Link>
        }
      >
        There is no page at this address. It may have been cut short when it was copied.
      </Empty>
    </>
  );
}
