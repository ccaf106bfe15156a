import { CAMERA_RANGES, type Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import type { OneCommand } from '../../../core/document/site-commands.ts';
import { offeredStreams, streamsOfCard } from '../../../core/evidence/offered-streams.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { NumberField } from '../../ui/number-field.tsx';

/** What the card of its model knows of its streams, and the camera does not have: one press takes it. */
export function CardStreams({ camera, onAdded }: { camera: Camera; onAdded: (streamId: string) => void }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const model = site.models.find(({ id }) => id === camera.modelId);
  if (!model) return null;
  const offered = offeredStreams(site, camera);
  const all = streamsOfCard(model, camera);
  const paths = all.flatMap(({ stream }) => {
    const own = camera.streams.find(({ label }) => label === stream.label);
    return own && own.path === '' && stream.path !== '' ? [{ own, path: stream.path }] : [];
  });
  const lacksChannel = all.some((one) => one.lacksChannel);
  const port =
    model.rtspPort !== null && model.rtspPort !== camera.ports.rtsp && camera.host === '' ? model.rtspPort : null;
  if (offered.length === 0 && paths.length === 0 && !lacksChannel && port === null) return null;
  const fills: readonly OneCommand[] = [
    ...(port === null ? [] : [{ kind: 'setAddress' as const, cameraId: camera.id, host: camera.host, port }]),
    ...paths.map(({ own, path }) => ({ kind: 'setStreamPath' as const, cameraId: camera.id, streamId: own.id, path })),
    ...offered.map(({ stream }) => ({
      kind: 'addStream' as const,
      cameraId: camera.id,
      stream: { ...stream, id: newId('stream') },
    })),
  ];
  return (
    <section
      aria-label="Streams of its model card"
      className="mb-4 flex flex-wrap items-end gap-x-3 gap-y-2 border-l-[3px] border-verdigris bg-verdigris-wash px-3 py-2"
    >
      <p className="self-center">The model card of {nameOfModel(model)} has more:</p>
      {fills.length > 1 && (
        <Button
          kind="main"
          disabled={lacksChannel}
          onClick={() =>
            dispatch(
              commandIssued({
                kind: 'many',
                commands: fills,
                what: `${camera.name}: filled in from the model card of ${nameOfModel(model)}`,
              }),
            )
          }
        >
          Fill it in from the model card
        </Button>
      )}
      {lacksChannel && (
        <NumberField
          label="Which channel is it?"
          value={camera.channel}
          range={CAMERA_RANGES.channel}
          isOptional
          className="w-36"
          onKeep={(channel) =>
            void dispatch(commandIssued({ kind: 'changeCamera', cameraId: camera.id, changed: { channel } }))
          }
        />
      )}
      {port !== null && (
        <Button
          onClick={() => dispatch(commandIssued({ kind: 'setAddress', cameraId: camera.id, host: camera.host, port }))}
        >
          Use port {port}
        </Button>
      )}
      {paths.map(({ own, path }) => (
        <Button
          key={own.id}
          disabled={lacksChannel}
          onClick={() =>
            dispatch(commandIssued({ kind: 'setStreamPath', cameraId: camera.id, streamId: own.id, path }))
          }
        >
          Path of {own.label}: <span className="font-mono">{path}</span>
        </Button>
      ))}
      {offered.map(({ stream }) => (
        <Button
          key={stream.label}
          disabled={lacksChannel}
          onClick={() => {
            const id = newId('stream');
            dispatch(commandIssued({ kind: 'addStream', cameraId: camera.id, stream: { ...stream, id } }));
            onAdded(id);
          }}
        >
          Add {stream.label}
          {stream.path && <span className="font-mono">{stream.path}</span>}
        </Button>
      ))}
    </section>
  );
}
