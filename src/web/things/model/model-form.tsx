import { yupResolver } from '@hookform/resolvers/yup';
import type { ReactNode } from 'react';
import { useFieldArray, useForm, useFormContext } from 'react-hook-form';
import type { Result } from '../../../core/base/result.ts';
import { RADIO_BANDS } from '../../../core/base/ways.ts';
import {
  emptyModel,
  LIGHT_KINDS,
  LOCAL_STREAM_WORDS,
  LOCAL_STREAMS,
  type Model,
  SOUNDS,
} from '../../../core/document/chapters/models/model-card.ts';
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
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
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

const NOT_KNOWN = { value: '', label: 'not known' };
const YES_NO = [NOT_KNOWN, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }];
const options = (values: readonly string[], words: Readonly<Record<string, string>> = {}) => [
  NOT_KNOWN,
  ...values.map((value) => ({ value, label: words[value] ?? value })),
];

const { Field, Choice, Tick } = fieldsFor<ModelFields>();

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
  const isWrong = Object.keys(form.formState.errors).some((name) => !FIRST_FIELDS.has(name));
  return (
    <Form form={form} onKeep={keep} className="flex flex-col gap-4">
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-5">
        <Field name="maker" label="Make" isText />
        <Field name="model" label="Model" isText />
        <Choice name="localStream" label="On this network" options={options(LOCAL_STREAMS, LOCAL_STREAM_WORDS)} />
        <Field
          name="codecs"
          label="Codecs of the main stream"
          isText
          placeholder="H.264, H.265"
          hint={<ReadAs name="codecs" read={readCodecs} say={sayCodecs} />}
        />
        <Field
          name="lenses.0.size"
          label="Picture"
          isText
          placeholder="2560×1440 or 4MP"
          hint={<ReadAs name="lenses.0.size" read={readSize} say={saySize} />}
        />
        <Field name="lenses.0.focal" label="Lens" isText placeholder="2.8 mm or 2.8–12 mm" />
        <Field name="lenses.0.measuredHfovDeg" label="It sees across, °" placeholder="as printed or taped" />
        <Field
          name="fedBy"
          label="Fed by"
          isText
          placeholder="802.3af, 12 V"
          hint={<ReadAs name="fedBy" read={readFedBy} say={sayFedBy} />}
        />
        <Field name="dayW" label="By day, W" />
        <Field name="nightW" label="At night, W" />
      </div>
      <details open={card !== null || isWrong || undefined} className="group">
        <summary className="w-fit py-1 font-strong text-verdigris">Everything else it may say</summary>
        <div className="mt-2 flex flex-col gap-4">
          <Group title="Of the box">
            <Field name="hardwareRev" label="Hardware revision" isText />
            <Field name="price" label="Price of one" />
            <Field name="seats" label="Seats it takes" />
            <Field name="ingress" label="IP code" isText placeholder="IP67" />
            <Field name="cardMaxGB" label="Largest card, GB (0 no slot)" />
          </Group>
          <Group title="Main stream">
            <Field
              name="path"
              label="Path"
              isText
              isCode
              placeholder="/live/main"
              hint="{channel}, {user}, {secret} are filled in"
            />
            <Field name="rtspPort" label="Port" placeholder="554" />
            <Field name="fps" label="Frames a second" />
            <Field name="sessions" label="Clients at once" />
          </Group>
          <Group
            title="Small streams"
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
                  label={`Small stream ${at + 1}, picture`}
                  isText
                  placeholder="640×360"
                />
                <Field name={`subs.${at}.codecs`} label={`Small stream ${at + 1}, codecs`} isText placeholder="H.264" />
                <Field name={`subs.${at}.fps`} label={`Small stream ${at + 1}, frames a second`} />
                <Field
                  name={`subs.${at}.path`}
                  label={`Small stream ${at + 1}, path`}
                  isText
                  isCode
                  placeholder="/live/sub"
                />
                <Button
                  kind="quiet"
                  className="mt-5 justify-self-start text-small"
                  aria-label={`Take small stream ${at + 1} out`}
                  onClick={() => subs.remove(at)}
                >
                  Take it out
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
                    Take the second lens out
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
                <Field name={`lenses.${at}.size`} label="Picture of the second" isText placeholder="2560×1440" />
              )}
              {at > 0 && <Field name={`lenses.${at}.focal`} label="Second lens, mm" isText placeholder="8 mm" />}
              {at > 0 && <Field name={`lenses.${at}.measuredHfovDeg`} label="The second sees across, °" />}
              {lenses.fields.length > 1 && (
                <Field
                  name={`lenses.${at}.axisDeg`}
                  label={`Axis of the ${at === 0 ? 'first' : 'second'} to the right, °`}
                />
              )}
              <Tick
                name={`lenses.${at}.bends`}
                label={at === 0 ? 'Bends like a fisheye' : 'The second bends like a fisheye'}
                className="self-end"
              />
            </Group>
          ))}
          {lenses.fields.length < 2 && (
            <Button className="self-start" onClick={() => lenses.append(NEW_LENS)}>
              Add a second lens
            </Button>
          )}
          <Group title="Night, movement, sound">
            <Choice name="lightKind" label="Light" options={options(LIGHT_KINDS)} />
            <Field name="lightReachM" label="Its reach, rated, m" />
            <Field name="lightAngleDeg" label="Its angle, °" />
            <Field name="panRangeDeg" label="Pan, ° (0 stands still)" />
            <Field name="tiltRangeDeg" label="Tilt, °" />
            <Choice name="sound" label="Sound" options={options(SOUNDS, { hear: 'hears', talk: 'both ways' })} />
          </Group>
          <Group title="Power and network">
            <Field name="standbyW" label="Asleep, W" />
            <Field name="batteryWh" label="Battery in it, Wh" />
            <Choice name="supplyInBox" label="Supply in the box" options={YES_NO} />
            <Choice name="wired" label="Wired network" options={YES_NO} />
            <span className="flex flex-wrap gap-x-3">
              <span className="self-center text-small text-soft">Radio</span>
              {RADIO_BANDS.map((band) => (
                <Tick key={band} name="bands" value={band} label={band === 'sub-GHz' ? band : `${band} GHz`} />
              ))}
            </span>
          </Group>
          <Group title="As it is set up">
            <Field name="streamSwitch" label="Where its stream is switched on" isText className="col-span-2" />
            <Field name="onvifPort" label="ONVIF port" placeholder="80" />
            <Field name="channels" label="Channels of a box" placeholder="1" />
            <Field name="factoryUser" label="Account it comes with" isText isCode />
            <Field name="factorySecret" label="Secret it comes with" isText isCode hint="as printed for all of them" />
            <Field name="longestSecret" label="Longest secret" />
            <Field name="refusedSigns" label="Signs it cannot take" isText isCode />
            <Choice name="hasSideBranch" label="Maker’s firmware with a stream" options={YES_NO} />
          </Group>
          <Group title="Without its maker’s account">
            <Choice
              name="lostKnown"
              label="Something is lost"
              options={[NOT_KNOWN, { value: 'yes', label: 'yes' }, { value: 'no', label: 'nothing is' }]}
            />
            {form.watch('lostKnown') === 'yes' && (
              <Field name="lost" label="What is lost" isText placeholder="push messages, person detection" />
            )}
            <Field name="notes" label="Notes" isText className="col-span-2" />
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
