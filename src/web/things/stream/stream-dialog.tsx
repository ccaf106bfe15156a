import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { type InferType, object, string } from 'yup';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { type Camera, STREAM_RANGES, type Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { type OfferedStream, offeredStreams } from '../../../core/evidence/offered-streams.ts';
import { readCodecs, readSize, sayCodecs, saySize } from '../../../core/figures/written-figures.ts';
import { withLoginOut } from '../../../core/net/address-login.ts';
import { STREAM_PATH } from '../../../core/net/path-places.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { readOr, sizeField, writtenField } from '../../ui/form-texts.ts';
import { ThingActs } from '../thing/index.ts';

const oneCodec = (codecs: readonly string[]): string | null =>
  codecs.length > 1 ? 'A stream has one codec: write which.' : null;

const schema = object({
  label: string()
    .trim()
    .required('A name is needed: main, sub, third.')
    .max(TEXT_LIMITS.label, `At most ${TEXT_LIMITS.label} characters.`),
  path: string()
    .trim()
    .max(TEXT_LIMITS.path)
    .matches(STREAM_PATH, 'A path starts with / and has no spaces.')
    .test('login', (value, { createError }) => {
      const login = withLoginOut({ path: value ?? '', user: '', secret: '' });
      const isBare = login.ok && !login.value.isTaken;
      return isBare || createError({ message: 'There is a login in it: write {user} and {password} in its place.' });
    })
    .defined(),
  codec: writtenField(readCodecs, oneCodec),
  size: sizeField(STREAM_RANGES.sidePx),
  fps: optionalNumber('Frame rate', STREAM_RANGES.fps),
  gopFrames: optionalNumber('Frames', STREAM_RANGES.gopFrames),
  bitrateKbps: optionalNumber('Bit rate', STREAM_RANGES.bitrateKbps),
});
type StreamFields = InferType<typeof schema>;
const { Field } = fieldsFor<StreamFields>();

const fieldsOf = (stream: Omit<Stream, 'id'> | null): StreamFields => ({
  label: stream?.label ?? '',
  path: stream?.path ?? '',
  codec: stream?.codec ? sayCodecs([stream.codec]) : '',
  size: saySize({ widthPx: stream?.width ?? null, heightPx: stream?.height ?? null }),
  fps: stream?.fps ?? undefined,
  gopFrames: stream?.gopFrames ?? undefined,
  bitrateKbps: stream?.bitrateKbps ?? undefined,
});

interface StreamDialogProps {
  readonly camera: Camera;
  readonly edited: Stream | 'new';
  readonly onClose: () => void;
  readonly onMade: (streamId: string) => void;
}

/** One stream: what it is called, where it is asked for, and what is planned of it while no probe has measured it. */
export function StreamDialog({ camera, edited, onClose, onMade }: StreamDialogProps) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const before = edited === 'new' ? null : edited;
  const form = useForm({ resolver: yupResolver(schema), defaultValues: fieldsOf(before) });
  const offered = offeredStreams(site, camera);
  const keep = (fields: StreamFields): void => {
    const size = readOr(readSize, fields.size, { widthPx: null, heightPx: null });
    const stream: Stream = {
      id: before?.id ?? newId('stream'),
      label: fields.label,
      path: fields.path,
      codec: readOr(readCodecs, fields.codec, [])[0] ?? null,
      width: size.widthPx,
      height: size.heightPx,
      fps: fields.fps ?? null,
      gopFrames: fields.gopFrames ?? null,
      bitrateKbps: fields.bitrateKbps ?? null,
    };
    dispatch(commandIssued({ kind: before ? 'changeStream' : 'addStream', cameraId: camera.id, stream }));
    if (!before) onMade(stream.id);
    onClose();
  };
  const take = ({ stream }: OfferedStream): void => form.reset(fieldsOf(stream));
  return (
    <DialogFrame
      title={before ? `Stream ${before.label} of ${camera.name}` : `New stream of ${camera.name}`}
      description="What is planned counts until a probe has measured it. An empty field is not known."
      isOpen
      onOpenChange={onClose}
    >
      {!before && offered.length > 0 && (
        <fieldset className="mb-3 flex flex-wrap items-center gap-2">
          <legend className="mb-1 text-small text-soft">As in its model card</legend>
          {offered.map((one) => (
            <Button key={one.stream.label} onClick={() => take(one)}>
              {one.stream.label}
              {one.stream.path && <span className="font-mono text-small text-soft">{one.stream.path}</span>}
            </Button>
          ))}
        </fieldset>
      )}
      <Form form={form} onKeep={keep} className="grid grid-cols-6 items-start gap-x-3 gap-y-3">
        <Field name="label" label="Name" isText placeholder="sub" className="col-span-2" />
        <Field name="path" label="Path" isText isCode placeholder="/live/sub" className="col-span-4" />
        <Field name="codec" label="Codec" isText placeholder="H.264" className="col-span-2" />
        <Field name="size" label="Resolution" isText placeholder="640×360" className="col-span-2" />
        <Field name="fps" label="Frame rate" className="col-span-2" />
        <Field name="gopFrames" label="Key-frame interval, frames" className="col-span-3" />
        <Field
          name="bitrateKbps"
          label="Bit rate, kbit/s"
          hint="empty: modelled from the rest"
          className="col-span-3"
        />
        <FormFoot
          onLeave={onClose}
          acts={before && <ThingActs kind="stream" id={before.id} onGone={onClose} onCopied={onClose} />}
        />
      </Form>
    </DialogFrame>
  );
}
