import { Drop } from '../ui/drop.tsx';
import { NewSiteForm } from './new-site-form.tsx';

/** Nothing is here yet: begin a site. */
export function FirstSite() {
  return (
    <main className="mx-auto max-w-md px-5 py-20">
      <p className="mb-6 flex items-center gap-2 text-name font-strong">
        <Drop verdict="ok" /> Clear Tap
      </p>
      <h1 className="text-title">Begin with a site</h1>
      <p className="mt-1 mb-4 text-soft">
        One customer’s place. Its cameras, measurements and hand-over sheets stay in this browser and in the files you
        export.
      </p>
      <NewSiteForm onCreated={() => {}} />
    </main>
  );
}
