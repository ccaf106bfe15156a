import { yupResolver } from '@hookform/resolvers/yup';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { type InferType, object, string } from 'yup';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { sayMany } from '../../../core/base/say.ts';
import {
  CAMERA_KINDS,
  CAMERA_RANGES,
  type Camera,
  type CameraKind,
} from '../../../core/document/chapters/cameras/camera.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import type { PlanningCommand } from '../../../core/document/site-commands.ts';
import { streamsInstead } from '../../../core/evidence/offered-streams.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { nameField, textField } from '../../ui/form-texts.ts';
import { SelectField } from '../../ui/text-field.tsx';
import { ThingActs } from '../thing/index.ts';

const KIND_WORDS: Readonly<Record<CameraKind, string>> = {
  camera: 'camera',
  handset: 'old phone',
  channel: 'channel of a recorder',
};

const schema = object({
  name: nameField('Give it the name of its place.'),
  place: textField(TEXT_LIMITS.place),
  kind: string().oneOf(CAMERA_KINDS).required(),
  channel: optionalNumber('Channel', CAMERA_RANGES.channel),
  cardGB: optionalNumber('SD card', CAMERA_RANGES.cardGB),
  cardPrice: optionalNumber('Price', CAMERA_RANGES.price),
});
type CameraFields = InferType<typeof schema>;
const { Field, Choice } = fieldsFor<CameraFields>();

interface CameraDialogProps {
  readonly camera: Camera;
  readonly onClose: () => void;
  /** The camera is there no more. */
  readonly onGone: () => void;
  readonly onCopied: (cameraId: string) => void;
}

const idOfCopy = (command: PlanningCommand): string => (command.kind === 'addCamera' ? command.camera.id : '');

/** What a camera is called and where it hangs; another one of its kind, another model in its place, none. */
export function CameraDialog({ camera, onClose, onGone, onCopied }: CameraDialogProps) {
  const dispatch = useAppDispatch();
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      name: camera.name,
      place: camera.place,
      kind: camera.kind,
      channel: camera.channel ?? undefined,
      cardGB: camera.memoryCard?.sizeGB,
      cardPrice: camera.memoryCard?.price ?? undefined,
    },
  });
  const keep = ({ name, place, kind, channel, cardGB, cardPrice }: CameraFields): void => {
    dispatch(
      commandIssued({
        kind: 'changeCamera',
        cameraId: camera.id,
        changed: {
          name,
          place,
          kind,
          channel: channel ?? null,
          memoryCard: cardGB === undefined ? null : { sizeGB: cardGB, price: cardPrice ?? null },
        },
      }),
    );
    onClose();
  };
  return (
    <DialogFrame
      title={camera.name}
      description="Its name, its place, and what becomes of it."
      isOpen
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={keep} className="grid grid-cols-6 items-start gap-x-3 gap-y-3">
        <Field name="name" label="Name" isText className="col-span-6" />
        <Field
          name="place"
          label="Place"
          isText
          placeholder="Its name, its place, and its status."
          className="col-span-6"
        />
        <Choice
          name="kind"
          label="Kind"
          className="col-span-4"
          options={CAMERA_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
        />
        <Field name="channel" label="Channel" hint="of its recorder" className="col-span-2" />
        <Field name="cardGB" label="SD card bought for it, GB" placeholder="none" className="col-span-4" />
        <Field name="cardPrice" label="Its price" className="col-span-2" />
        <FormFoot
          onLeave={onClose}
          acts={
            <ThingActs
              kind="camera"
              id={camera.id}
              onGone={onGone}
              onCopied={(command) => onCopied(idOfCopy(command))}
            />
          }
        />
      </Form>
      <ReplaceBy camera={camera} onReplaced={onClose} />
    </DialogFrame>
  );
}

/** Another device in the same place: taps, links, need and record stay, and what was measured of the old one counts no more. */
function ReplaceBy({ camera, onReplaced }: { camera: Camera; onReplaced: () => void }) {
  const dispatch = useAppDispatch();
  const { models, taps } = useAppSelector(selectSite);
  const [modelId, setModelId] = useState('');
  const model = models.find(({ id }) => id === modelId);
  if (models.length === 0) return null;
  const drawn = taps.filter(({ cameraId }) => cameraId === camera.id).length;
  const replace = (): void => {
    if (!model) return;
    const streams = streamsInstead(camera, model, () => newId('stream'));
    dispatch(commandIssued({ kind: 'replaceCamera', cameraId: camera.id, modelId: model.id, streams }));
    onReplaced();
  };
  return (
    <section aria-label="Another device in its place" className="mt-4 border-t border-hair pt-3">
      <h3 className="mb-1 text-small">Another device in its place</h3>
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <SelectField
          label="Model"
          value={modelId}
          onChange={setModelId}
          options={[
            { value: '', label: 'choose a model card' },
            ...models.map((one) => ({
              value: one.id,
              label: `${nameOfModel(one)}${one.id === camera.modelId ? ', a new one of the same' : ''}`,
            })),
          ]}
        />
        <Button disabled={!model} onClick={replace}>
          Replace it
        </Button>
      </div>
      <p className="mt-1 text-small text-soft">
        Its place, its need, {sayMany(drawn, 'tap')} and its record stay. Measurements of the old one no longer count:
        probe the new one.
      </p>
    </section>
  );
}
