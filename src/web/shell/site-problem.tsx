import { Link, useRouteError } from 'react-router';

/** Stands where the site would stand when it cannot be opened. */
export function SiteProblem() {
  const error = useRouteError();
  return (
    <main className="mx-auto max-w-xl px-5 py-16">
      <h1 className="text-title">This site cannot be opened</h1>
      <p className="mt-2">{error instanceof Error ? error.message : 'This address leads nowhere.'}</p>
      <p className="mt-1 text-soft">
        Nothing was changed. An exported site file can be opened again from any other site.
      </p>
      <Link to="/" className="mt-4 inline-block font-strong text-verdigris">
        Back to the first site →
      </Link>
    </main>
  );
}
