import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { array, boolean, type InferType, object, string } from 'yup';
import { TAP_USE_WORDS, TAP_USES } from '../../../core/base/tap-uses.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { NEED_RANGES, type Need } from '../../../core/document/chapters/cameras/need.ts';
import { SOUNDS, type Sound } from '../../../core/document/chapters/models/model-card.ts';
import { DETAIL_LEVELS, type DetailLevel } from '../../../core/optics/detail-levels.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { neededNumber, optionalNumber } from '../../ui/form-numbers.ts';

const LEVEL_WORDS: Readonly<Record<DetailLevel, string>> = {
  monitor: 'monitor: that something moves',
  detect: 'detect: that it is a person',
  observe: 'observe: clothing, what is done',
  recognise: 'recognise: a known person',
  identify: 'identify: an unknown person, beyond doubt',
  inspect: 'inspect: a face or an object, close',
};
const SOUND_WORDS: Readonly<Record<Sound, string>> = {
  none: 'none',
  hear: 'listen',
  talk: 'two-way',
};
const pick = <T extends string>(values: readonly T[], text: string | undefined): T | null =>
  values.find((value) => value === text) ?? null;
const levels = DETAIL_LEVELS.map(({ level }) => level);

const schema = object({
  level: string().defined(),
  line: string().trim().max(40, 'At most 40 characters.').defined(),
  charHeightMm: optionalNumber('Height of a character', NEED_RANGES.charHeightMm),
  distanceM: neededNumber('Distance', NEED_RANGES.distanceM),
  widthM: neededNumber('Width', NEED_RANGES.widthM),
  nearM: neededNumber('Nearest point', NEED_RANGES.nearM).test(
    'before-far',
    'The zone must begin before it ends.',
    (value, { parent }) => value === undefined || !(value > parent.distanceM),
  ),
  atNight: boolean().required(),
  outdoors: boolean().required(),
  turns: boolean().required(),
  sound: string().required(),
  draws: array(string().defined()).required(),
});

type NeedFields = InferType<typeof schema>;
const { Field, Choice, Tick } = fieldsFor<NeedFields>();

const LEVELS = [
  { value: '', label: 'none: only text' },
  ...levels.map((value) => ({ value, label: LEVEL_WORDS[value] })),
];
const USES = [
  { value: '', label: 'no stream goes there' },
  ...TAP_USES.map((value) => ({ value, label: TAP_USE_WORDS[value] })),
];

/** Everything the place asks for. Kept whole or not at all. */
export function NeedDialog({ camera, onClose }: { camera: Camera; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const { destinations } = useAppSelector(selectSite);
  const { need } = camera;
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      level: need ? (need.level ?? '') : 'recognise',
      line: need?.text?.line ?? '',
      charHeightMm: need?.text?.charHeightMm,
      distanceM: need?.distanceM ?? 8,
      widthM: need?.widthM ?? 4,
      nearM: need?.nearM ?? 3,
      atNight: need?.atNight ?? true,
      outdoors: need?.outdoors ?? true,
      turns: need?.turns ?? false,
      sound: need?.sound ?? 'none',
      draws: destinations.map(({ id }) => need?.draws.find((draw) => draw.destinationId === id)?.use ?? ''),
    },
  });
  const keep = (values: NeedFields): void => {
    const kept: Need = {
      level: pick(levels, values.level),
      text:
        values.charHeightMm === undefined
          ? null
          : { line: values.line || 'PRESS 7B', charHeightMm: values.charHeightMm },
      distanceM: values.distanceM,
      widthM: values.widthM,
      nearM: values.nearM,
      atNight: values.atNight,
      sound: pick(SOUNDS, values.sound) ?? 'none',
      turns: values.turns,
      outdoors: values.outdoors,
      draws: destinations.flatMap(({ id }, at) => {
        const use = pick(TAP_USES, values.draws[at]);
        if (!use) return [];
        // The form shows one use for each destination; a second one, of a file, stays.
        const [, ...more] = need?.draws.filter((draw) => draw.destinationId === id) ?? [];
        return [{ destinationId: id, use }, ...more.filter((draw) => draw.use !== use)];
      }),
    };
    dispatch(commandIssued({ kind: 'setNeed', cameraId: camera.id, need: kept }));
    onClose();
  };
  return (
    <DialogFrame
      title={`What ${camera.name} must show`}
      description="A level, text to read, or both. Widths and distances along the ground."
      isOpen
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={keep} className="grid grid-cols-6 gap-x-3 gap-y-3">
        <Choice name="level" label="Level" className="col-span-6" options={LEVELS} />
        <Field
          name="charHeightMm"
          label="Text to read, character height in mm"
          placeholder="none"
          className="col-span-3"
        />
        <Field name="line" label="Target" isText placeholder="PRESS 7B" className="col-span-3" />
        <Field name="distanceM" label="Distance, m" className="col-span-2" />
        <Field name="widthM" label="Width there, m" className="col-span-2" />
        <Field name="nearM" label="Nearest point, m" className="col-span-2" />
        <Tick name="atNight" label="At night too" className="col-span-2" />
        <Tick name="outdoors" label="Outdoors" className="col-span-2" />
        <Tick name="turns" label="PTZ" className="col-span-2" />
        <Choice
          name="sound"
          label="Audio"
          className="col-span-6"
          options={SOUNDS.map((value) => ({ value, label: SOUND_WORDS[value] }))}
        />
        {destinations.length === 0 && (
          <p className="col-span-6 text-small text-soft">
            Destinations can be chosen once there are any: add one on the plan, or at Tap.
          </p>
        )}
        {destinations.map(({ id, name }, at) => (
          <Choice key={id} name={`draws.${at}`} label={name} className="col-span-3" options={USES} />
        ))}
        <FormFoot onLeave={onClose} />
      </Form>
    </DialogFrame>
  );
}
