import { yupResolver } from '@hookform/resolvers/yup';
import type { ReactNode } from 'react';
import { useFieldArray, useForm, useFormContext } from 'react-hook-form';
import type { Result } from '../../../core/base/result.ts';
import { LIGHT_KINDS, type Model } from '../../../core/document/chapters/models/model-card.ts';
import {
  emptyModel,
  LIGHT_FIELDS,
  MODEL_FIELDS,
  POWER_FIELDS,
} from '../../../core/document/chapters/models/model-fields.ts';
import {
  readCodecs,
  readFedBy,
  readSize,
  sayCodecs,
  sayFedBy,
  saySize,
} from '../../../core/figures/written-figures.ts';
import { newId } from '../../store/new-id.ts';
import { Button } from '../../ui/button.tsx';
import { cellsFor, choicesOf, YES_NO } from '../../ui/form-cells.tsx';
import { Form } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import {
  cardOf,
  fieldsOf,
  MOST_SUBS,
  type ModelFields,
  modelFormSchema,
  NEW_LENS,
  NEW_SUB,
} from './model-form-schema.ts';

const { Field, Choice, Tick, Cells } = cellsFor<ModelFields>();

/** What a reader made of a figure, where that is not what was typed. */
function ReadAs<T>({
  name,
  read,
  say,
}: {
  name: 'fedBy' | 'codecs' | 'lenses.0.size';
  read: (text: string) => Result<T, string>;
  say: (value: T) => string;
}) {
  const text = String(useFormContext<ModelFields>().watch(name) ?? '').trim();
  const found = text === '' ? null : read(text);
  const said = found?.ok ? say(found.value) : '';
  return said === '' || said.toLowerCase() === text.toLowerCase() ? null : <>read as {said}</>;
}

interface ModelFormProps {
  readonly card: Model | null;
  readonly onLeave: () => void;
  readonly onKeep: (card: Model) => void;
  /** What else can be done with a card that is there. */
  readonly acts?: ReactNode;
}

/**
 * What is printed on every box in ten fields, and the rest of a data sheet behind them. An empty field is not known, and
 * judged so.
 */
export function ModelForm({ card, onLeave, onKeep, acts }: ModelFormProps) {
  const empty = fieldsOf(emptyModel('new', '', ''));
  const known = card ? fieldsOf(card) : empty;
  const form = useForm({
    resolver: yupResolver(modelFormSchema),
    defaultValues: { ...known, lenses: known.lenses.length > 0 ? known.lenses : [NEW_LENS] },
  });
  const lenses = useFieldArray({ control: form.control, name: 'lenses' });
  const subs = useFieldArray({ control: form.control, name: 'subs' });
  const keep = (fields: ModelFields): void => onKeep(cardOf(card?.id ?? newId('model'), fields, card ?? undefined));
  const { power: wrongPower = {}, ...wrong } = form.formState.errors;
  const isWrong = Object.keys({ ...wrong, ...wrongPower }).some((name) => !FIRST_FIELDS.has(name));
  return (
    <Form form={form} onKeep={keep} className="flex flex-col gap-4">
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-5">
        <Cells table={MODEL_FIELDS} group="name" />
        <Field
          name="codecs"
          label="Codecs of the main stream"
          isText
          placeholder="H.264, H.265"
          hint={<ReadAs name="codecs" read={readCodecs} say={sayCodecs} />}
        />
        <Field
          name="lenses.0.size"
          label="Resolution"
          isText
          placeholder="2560×1440 or 4MP"
          hint={<ReadAs name="lenses.0.size" read={readSize} say={saySize} />}
        />
        <Field name="lenses.0.focal" label="Lens" isText placeholder="2.8 mm or 2.8–12 mm" />
        <Field
          name="lenses.0.measuredHfovDeg"
          label="Horizontal angle of view, °"
          placeholder="as printed or measured"
        />
        <Field
          name="fedBy"
          label="Power sources"
          isText
          placeholder="802.3af, 12 V"
          hint={<ReadAs name="fedBy" read={readFedBy} say={sayFedBy} />}
        />
        <Cells table={POWER_FIELDS} under="power" group="first" />
      </div>
      <details open={card !== null || isWrong || undefined} className="group">
        <summary className="w-fit py-1 font-strong text-verdigris">All other figures</summary>
        <div className="mt-2 flex flex-col gap-4">
          <Group title="Recorder">
            <Cells table={MODEL_FIELDS} group="box" />
            <Field name="ingress" label="IP code" isText placeholder="IP67" />
          </Group>
          <Group title="Main stream">
            <Cells table={MODEL_FIELDS} group="main" />
          </Group>
          <Group
            title="Sub streams"
            aside={
              form.watch('sub') === 'yes' && subs.fields.length < MOST_SUBS ? (
                <Button kind="quiet" className="text-small" onClick={() => subs.append(NEW_SUB)}>
                  One more
                </Button>
              ) : undefined
            }
          >
            <Choice
              name="sub"
              label="It has them"
              options={YES_NO}
              onChosen={(value) => value === 'yes' && subs.fields.length === 0 && subs.append(NEW_SUB)}
            />
          </Group>
          {form.watch('sub') === 'yes' &&
            subs.fields.map(({ id }, at) => (
              <div key={id} className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-5">
                <Field
                  name={`subs.${at}.size`}
                  label={`Sub stream ${at + 1}, resolution`}
                  isText
                  placeholder="640×360"
                />
                <Field name={`subs.${at}.codecs`} label={`Sub stream ${at + 1}, codecs`} isText placeholder="H.264" />
                <Field name={`subs.${at}.fps`} label={`Sub stream ${at + 1}, frame rate`} />
                <Field
                  name={`subs.${at}.path`}
                  label={`Sub stream ${at + 1}, path`}
                  isText
                  isCode
                  placeholder="/live/sub"
                />
                <Button
                  kind="quiet"
                  className="mt-5 justify-self-start text-small"
                  aria-label={`Remove sub stream ${at + 1}`}
                  onClick={() => subs.remove(at)}
                >
                  Remove it
                </Button>
              </div>
            ))}
          {lenses.fields.map(({ id }, at) => (
            <Group
              key={id}
              title={at === 0 ? 'Lens and sensor' : 'Second lens'}
              aside={
                at > 0 && (
                  <Button kind="quiet" className="text-small" onClick={() => lenses.remove(at)}>
                    Remove the second lens
                  </Button>
                )
              }
            >
              <Field
                name={`lenses.${at}.sensor`}
                label={at === 0 ? 'Sensor' : 'Sensor of the second'}
                isText
                placeholder={'1/2.8" or 5.6×3.15 mm'}
                hint="by its format it is assumed"
              />
              {at > 0 && (
                <Field name={`lenses.${at}.size`} label="Resolution of the second" isText placeholder="2560×1440" />
              )}
              {at > 0 && <Field name={`lenses.${at}.focal`} label="Second lens, mm" isText placeholder="8 mm" />}
              {at > 0 && (
                <Field name={`lenses.${at}.measuredHfovDeg`} label="Horizontal angle of view of the second, °" />
              )}
              {lenses.fields.length > 1 && (
                <Field
                  name={`lenses.${at}.axisDeg`}
                  label={`Axis of the ${at === 0 ? 'first' : 'second'} to the right, °`}
                />
              )}
              <Tick
                name={`lenses.${at}.bends`}
                label={at === 0 ? 'Fisheye' : 'The second is a fisheye'}
                className="self-end"
              />
            </Group>
          ))}
          {lenses.fields.length < 2 && (
            <Button className="self-start" onClick={() => lenses.append(NEW_LENS)}>
              Add a second lens
            </Button>
          )}
          <Group title="Night, PTZ, audio">
            <Choice name="lightKind" label="Illuminator" options={choicesOf(LIGHT_KINDS)} />
            <Cells table={LIGHT_FIELDS} under="light" group="night" />
            <Cells table={MODEL_FIELDS} group="night" />
          </Group>
          <Group title="Power and network">
            <Cells table={POWER_FIELDS} under="power" group="power" />
            <Cells table={MODEL_FIELDS} group="power" />
          </Group>
          <Group title="Set-up">
            <Cells table={MODEL_FIELDS} group="setup" />
            <Field name="factoryUser" label="Factory account" isText isCode />
            <Field name="factorySecret" label="Factory password" isText isCode hint="as printed, the same for all" />
            <Field name="longestSecret" label="Longest password" />
            <Field name="refusedSigns" label="Characters it cannot take" isText isCode />
          </Group>
          <Group title="Without its maker’s account">
            <Choice
              name="lostKnown"
              label="Some functions are lost"
              options={choicesOf(['yes', 'no'], { no: 'nothing is' })}
            />
            {form.watch('lostKnown') === 'yes' && (
              <Field name="lost" label="What is lost" isText placeholder="push notifications, person detection" />
            )}
            <Cells table={MODEL_FIELDS} group="notes" />
          </Group>
        </div>
      </details>
      <FormFoot onLeave={onLeave} acts={acts} />
    </Form>
  );
}

/** What stands before the rest opens. */
const FIRST_FIELDS: ReadonlySet<string> = new Set([
  'maker',
  'model',
  'localStream',
  'codecs',
  'lenses',
  'fedBy',
  'dayW',
  'nightW',
]);

function Group({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="mb-1 flex w-full items-center gap-3 border-b border-hair pb-1 font-strong">
        {title}
        {aside && <span className="ml-auto font-normal">{aside}</span>}
      </legend>
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-5">{children}</div>
    </fieldset>
  );
}
