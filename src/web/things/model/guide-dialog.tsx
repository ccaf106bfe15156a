import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { type InferType, object, string } from 'yup';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import {
  GUIDE_RANGES,
  guideProblem,
  LED_ROLE_WORDS,
  LED_ROLES,
  type LedRole,
  type ReflashGuide,
  USUAL_GUIDE,
} from '../../../core/firmware/guide.ts';
import { LED_COLOURS, type LedPattern, RHYTHM_NAMES, RHYTHMS } from '../../../core/firmware/led.ts';
import { FILE_SYSTEMS } from '../../../core/firmware/memory-card.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { neededNumber, optionalNumber } from '../../ui/form-numbers.ts';
import { LedScore } from '../../ui/led-score.tsx';
import { keepCards } from './model-library.ts';

const fileName = (label: string) =>
  string()
    .max(TEXT_LIMITS.fileName, `${label}: at most ${TEXT_LIMITS.fileName} characters.`)
    .test('whole', `${label}: a name, without / and \\.`, (name) => !/[/\\\p{Cc}]/u.test(name ?? ''))
    .defined();
const words = () => string().trim().max(TEXT_LIMITS.place, `At most ${TEXT_LIMITS.place} characters.`).defined();
const lamp = () =>
  object({ colour: string().oneOf(LED_COLOURS).required(), rhythm: string().oneOf(RHYTHM_NAMES).required() });

export const guideFormSchema = object({
  imageName: fileName('The name of the firmware file').required(
    'It finds its firmware file by a name: enter it exactly.',
  ),
  backName: fileName('The name of the original firmware file'),
  fileSystem: string().oneOf(FILE_SYSTEMS).required(),
  limitGiB: optionalNumber('Largest partition', GUIDE_RANGES.limitGiB),
  cardWay: words(),
  button: words(),
  powerOffS: neededNumber('Unplugged', GUIDE_RANGES.powerOffS),
  holdS: neededNumber('Button held', GUIDE_RANGES.holdS),
  signWithinS: neededNumber('LED pattern within', GUIDE_RANGES.signWithinS),
  writeFromS: neededNumber('Writing', GUIDE_RANGES.writeS),
  writeToS: neededNumber('Writing', GUIDE_RANGES.writeS),
  patienceS: neededNumber('Timeout', GUIDE_RANGES.patienceS),
  rebootS: neededNumber('Restart', GUIDE_RANGES.rebootS),
  lamps: object({ usual: lamp(), taken: lamp(), writing: lamp(), stuck: lamp() }).required(),
}).test('guide', function (fields) {
  const problem = guideProblem(guideOf(fields));
  return problem === null || this.createError({ path: problem.field, message: problem.text });
});
export type GuideFields = InferType<typeof guideFormSchema>;

const pickLed = ({ colour, rhythm }: { readonly colour: string; readonly rhythm: string }): LedPattern => ({
  colour: LED_COLOURS.find((one) => one === colour) ?? 'white',
  rhythm: RHYTHM_NAMES.find((one) => one === rhythm) ?? 'off',
});

export const guideOf = ({ limitGiB, lamps, ...rest }: GuideFields): ReflashGuide => ({
  ...rest,
  limitGiB: limitGiB ?? null,
  lamps: {
    usual: pickLed(lamps.usual),
    taken: pickLed(lamps.taken),
    writing: pickLed(lamps.writing),
    stuck: pickLed(lamps.stuck),
  },
});

export const fieldsOfGuide = ({ limitGiB, ...rest }: ReflashGuide): GuideFields => ({
  ...rest,
  limitGiB: limitGiB ?? undefined,
  lamps: { ...rest.lamps },
});

const { Field, Choice } = fieldsFor<GuideFields>();

/** How a model is reflashed: what is found out once serves every camera of it. It lies on its card. */
export function GuideDialog({ model, onClose }: { model: Model; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const form = useForm({
    resolver: yupResolver(guideFormSchema),
    defaultValues: fieldsOfGuide(model.reflash ?? USUAL_GUIDE),
  });
  const put = (reflash: ReflashGuide | null): void => {
    const card = { ...model, reflash };
    dispatch(commandIssued({ kind: 'putModel', model: card }));
    keepCards([card]).catch(() => {}); // a browser that keeps nothing still has it in the site
    onClose();
  };
  const lamps = form.watch('lamps');
  return (
    <DialogFrame
      title={`Reflash guide of ${nameOfModel(model)}`}
      description="As its maker or the makers of the firmware wrote it, and as it was seen. It is part of the model card."
      isOpen
      isWide
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={(fields) => put(guideOf(fields))} className="flex flex-col gap-4">
        <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-4">
          <Field
            name="imageName"
            label="Name of the firmware file on the SD card"
            isText
            isCode
            className="col-span-2"
          />
          <Field
            name="backName"
            label="Name of the original firmware file"
            isText
            isCode
            hint="empty: no way back by SD card"
            className="col-span-2"
          />
          <Choice
            name="fileSystem"
            label="File system"
            options={FILE_SYSTEMS.map((value) => ({ value, label: value }))}
          />
          <Field name="limitGiB" label="Largest partition, GiB" hint="empty: not known" />
          <Field name="cardWay" label="How the SD card is inserted" isText className="col-span-2" />
          <Field name="button" label="Which button" isText className="col-span-2" />
          <Field name="powerOffS" label="Unplugged before, s" />
          <Field name="holdS" label="Button held at least, s" />
          <Field name="signWithinS" label="LED pattern within, s" />
          <Field name="writeFromS" label="Writes at least, s" />
          <Field name="writeToS" label="Writes at most, s" />
          <Field name="patienceS" label="Timeout, s" hint="no silence is a fault before" />
          <Field name="rebootS" label="Back on the network within, s" />
        </div>
        <fieldset>
          <legend className="mb-1 w-full border-b border-hair pb-1 font-strong">LED patterns</legend>
          <div className="grid grid-cols-1 gap-x-6 gap-y-2 md:grid-cols-2">
            {LED_ROLES.map((role) => (
              <LedFields key={role} role={role} sign={pickLed(lamps[role])} />
            ))}
          </div>
        </fieldset>
        <FormFoot
          onLeave={onClose}
          acts={model.reflash && <Button onClick={() => put(null)}>Remove it from the model card</Button>}
        />
      </Form>
    </DialogFrame>
  );
}

function LedFields({ role, sign }: { role: LedRole; sign: LedPattern }) {
  const label = LED_ROLE_WORDS[role];
  return (
    <div className="grid grid-cols-[1fr_1fr] items-end gap-x-2 gap-y-1">
      <span className="col-span-2 text-small">{label}</span>
      <Choice
        name={`lamps.${role}.colour`}
        label={`Colour: ${label}`}
        options={LED_COLOURS.map((value) => ({ value, label: value }))}
      />
      <Choice
        name={`lamps.${role}.rhythm`}
        label={`Rhythm: ${label}`}
        options={RHYTHM_NAMES.map((value) => ({ value, label: RHYTHMS[value].label }))}
      />
      <span className="col-span-2">
        <LedScore sign={sign} />
      </span>
    </div>
  );
}
