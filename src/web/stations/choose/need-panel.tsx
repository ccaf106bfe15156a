import { lazy, Suspense, useState } from 'react';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Need } from '../../../core/document/chapters/cameras/need.ts';
import type { Site } from '../../../core/document/site.ts';
import { sayNeed, zoneFromM } from '../../../core/site/needs.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';

const NeedDialog = lazy(async () => ({ default: (await import('./need-dialog.tsx')).NeedDialog }));

/** What the picture is for, in a line and the rest below; said once, judged everywhere. */
export function NeedPanel({ camera }: { camera: Camera }) {
  const site = useAppSelector(selectSite);
  const [isOpen, setIsOpen] = useState(false);
  const { need } = camera;
  return (
    <Panel
      title="What it must show"
      aside={camera.place || undefined}
      actions={
        <Button kind={need ? 'plain' : 'main'} onClick={() => setIsOpen(true)}>
          {need ? 'Change' : 'Enter what it must show'}
        </Button>
      }
    >
      {need ? (
        <>
          <p className="font-strong">{sayNeed(need)}</p>
          <p className="text-small text-soft">{conditionsOf(need, site)}</p>
          {need.outdoors && (
            <p className="mt-1 text-small text-soft">
              Turn it away from neighbours and the public road, or mask them; a sign at the entrance. Local law decides.
            </p>
          )}
        </>
      ) : (
        <p className="text-soft">A level of detail or a text to read, the distance, the width, by day and by night.</p>
      )}
      {isOpen && (
        <Suspense fallback={null}>
          <NeedDialog camera={camera} onClose={() => setIsOpen(false)} />
        </Suspense>
      )}
    </Panel>
  );
}

function conditionsOf(need: Need, site: Site): string {
  const draws = need.draws.map(({ destinationId, use }) => {
    const name = site.destinations.find(({ id }) => id === destinationId)?.name ?? 'a destination that was removed';
    return `${name} to ${use}`;
  });
  return [
    need.outdoors ? 'outdoors' : 'indoors',
    `nearest point ${zoneFromM(need)} m`,
    need.turns ? 'turning' : null,
    need.sound === 'none' ? null : need.sound === 'talk' ? 'two-way audio' : 'with audio',
    draws.length > 0 ? `goes to ${draws.join(', ')}` : 'no destination yet',
  ]
    .filter((part) => part !== null)
    .join(' · ');
}
