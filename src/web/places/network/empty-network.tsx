import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';

/** A site of which no network is described: what to do first. */
export const EmptyNetwork = ({ onAdd }: { onAdd: () => void }) => (
  <div className="mx-auto max-w-lg py-10">
    <p className="mb-3 flex gap-3">
      <Drop verdict="unknown" />
      <Drop verdict="unknown" />
    </p>
    <h1 tabIndex={-1} className="text-title outline-none">
      Describe the first network
    </h1>
    <p className="mt-1 mb-4 text-soft">
      Its name and its address range, as the router shows them: 10.77.4.0/24, for example. Then scan it, find the
      cameras, and make sure that their addresses stay.
    </p>
    <Button kind="main" onClick={onAdd}>
      Add a network
    </Button>
  </div>
);
