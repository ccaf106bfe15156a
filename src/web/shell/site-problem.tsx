import { useState } from 'react';
import { Link, useNavigate, useRouteError } from 'react-router';
import { Button } from '../ui/button.tsx';
import { sayWhen } from '../ui/say-when.ts';
import { restoreGoodCopy, SiteNotOpened } from './open-site.ts';

/** Stands where the site would stand when it cannot be opened, with every way on that there is. */
export function SiteProblem() {
  const error = useRouteError();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const refused = error instanceof SiteNotOpened ? error : null;
  const restore = async (siteId: string): Promise<void> => {
    try {
      await restoreGoodCopy(siteId);
      await navigate(`/site/${siteId}`, { replace: true });
    } catch {
      setProblem('The copy could not be restored: the browser’s storage refuses to write.');
    }
  };
  return (
    <main className="mx-auto max-w-xl px-5 py-16">
      <h1 className="text-title">This site cannot be opened</h1>
      <p className="mt-2 border-l-[3px] border-brick pl-3">
        {error instanceof Error ? error.message : 'This address does not exist.'}
      </p>
      <p className="mt-2 text-soft">Nothing was changed. An exported site file can be opened from any other site.</p>
      {problem && (
        <p role="alert" className="mt-2 text-brick">
          {problem}
        </p>
      )}
      <p className="mt-4 flex flex-wrap items-center gap-3">
        {refused?.goodCopyAt && (
          <Button kind="main" onClick={() => void restore(refused.siteId)}>
            Open the last good copy, of {sayWhen(refused.goodCopyAt)}
          </Button>
        )}
        {refused?.hasUnsaved ? (
          <Button kind="main" onClick={() => void navigate(-1)}>
            Back to it
          </Button>
        ) : (
          <Link to="/" className="inline-flex min-h-8 items-center font-strong text-verdigris">
            Back to the first site →
          </Link>
        )}
      </p>
    </main>
  );
}
