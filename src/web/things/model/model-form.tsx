import { yupResolver } from '@hookform/resolvers/yup';
import type { ReactNode } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import { POWER_WAY_WORDS, POWER_WAYS, RADIO_BANDS } from '../../../core/base/ways.ts';
import {
  emptyModel,
  LIGHT_KINDS,
  LOCAL_STREAM_WORDS,
  LOCAL_STREAMS,
  type Model,
  SOUNDS,
} from '../../../core/document/chapters/models/model-card.ts';
import { SENSOR_FORMATS } from '../../../core/document/chapters/models/sensor-formats.ts';
import { newId } from '../../store/new-id.ts';
import { Button } from '../../ui/button.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { cardOf, fieldsOf, type ModelFields, modelFormSchema, USUAL_LENS } from './model-form-schema.ts';

const NOT_KNOWN = { value: '', label: 'not known' };
const YES_NO = [NOT_KNOWN, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }];
const options = (values: readonly string[], words: Readonly<Record<string, string>> = {}) => [
  NOT_KNOWN,
  ...values.map((value) => ({ value, label: words[value] ?? value })),
];

const { Field, Choice, Tick } = fieldsFor<ModelFields>();

interface ModelFormProps {
  readonly card: Model | null;
  readonly onLeave: () => void;
  readonly onKeep: (card: Model) => void;
}

/** Everything a card may say, in the order of a data sheet. */
export function ModelForm({ card, onLeave, onKeep }: ModelFormProps) {
  const form = useForm({
    resolver: yupResolver(modelFormSchema),
    defaultValues: card ? fieldsOf(card) : { ...fieldsOf(emptyModel('new', '', '')), lenses: [USUAL_LENS] },
  });
  const lenses = useFieldArray({ control: form.control, name: 'lenses' });
  const keep = (fields: ModelFields): void => onKeep(cardOf(card?.id ?? newId('model'), fields, card));
  return (
    <Form form={form} onKeep={keep} className="flex flex-col gap-4">
      <Group title="Make and model">
        <Field name="maker" label="Make" isText />
        <Field name="model" label="Model" isText />
        <Field name="hardwareRev" label="Hardware revision" isText />
        <Field name="price" label="Price of one" />
        <Field name="seats" label="Seats it takes" />
      </Group>
      <Group title="Stream">
        <Choice name="localStream" label="On this network" options={options(LOCAL_STREAMS, LOCAL_STREAM_WORDS)} />
        <Field name="sessions" label="Clients at once" />
        <Field name="codecs" label="Codecs of the main stream" isText />
        <Field name="fps" label="Frames a second" />
        <Choice name="sub" label="Sub stream" options={YES_NO} />
        {form.watch('sub') === 'yes' && (
          <>
            <Field name="subWidthPx" label="Sub, pixels across" />
            <Field name="subHeightPx" label="Sub, pixels down" />
            <Field name="subFps" label="Sub, frames a second" />
          </>
        )}
        <Field name="lost" label="Lost without its account" isText />
      </Group>
      {lenses.fields.map(({ id }, at) => {
        return (
          <Group
            key={id}
            title={at === 0 ? 'Lens and sensor' : 'Second lens'}
            aside={
              <span className="flex gap-2">
                <select
                  aria-label={`Sensor format of lens ${at + 1}`}
                  value=""
                  onChange={(event) => {
                    const format = SENSOR_FORMATS[Number(event.target.value)];
                    if (!format) return;
                    form.setValue(`lenses.${at}.sensorWidthMm`, format.widthMm);
                    form.setValue(`lenses.${at}.sensorHeightMm`, format.heightMm);
                  }}
                  className="min-h-7 rounded-control border border-hair bg-paper px-1 text-small"
                >
                  <option value="">size by format (assumed)</option>
                  {SENSOR_FORMATS.map(({ format }, index) => (
                    <option key={format} value={index}>
                      {format}
                    </option>
                  ))}
                </select>
                <Button kind="quiet" className="text-small" onClick={() => lenses.remove(at)}>
                  Take it out
                </Button>
              </span>
            }
          >
            <Field name={`lenses.${at}.sensorWidthMm`} label="Sensor width, mm" />
            <Field name={`lenses.${at}.sensorHeightMm`} label="Sensor height, mm" />
            <Field name={`lenses.${at}.focalWideMm`} label="Focal length, mm" />
            <Field name={`lenses.${at}.focalTeleMm`} label="Longest, if it zooms" />
            <Field name={`lenses.${at}.widthPx`} label="Pixels across" />
            <Field name={`lenses.${at}.heightPx`} label="Pixels down" />
            <Field name={`lenses.${at}.measuredHfovDeg`} label="Measured view, °" />
            {lenses.fields.length > 1 && <Field name={`lenses.${at}.axisDeg`} label="Axis to the right, °" />}
            <Tick name={`lenses.${at}.bends`} label="Bends like a fisheye" className="self-end" />
          </Group>
        );
      })}
      {lenses.fields.length < 2 && (
        <Button className="self-start" onClick={() => lenses.append(USUAL_LENS)}>
          {lenses.fields.length === 0 ? 'Add a lens' : 'Add a second lens'}
        </Button>
      )}
      <Group title="Night, weather, movement, sound">
        <Choice name="lightKind" label="Light" options={options(LIGHT_KINDS)} />
        <Field name="lightReachM" label="Its reach, rated, m" />
        <Field name="lightAngleDeg" label="Its angle, °" />
        <Field name="ingress" label="IP code, as 66" />
        <Field name="panRangeDeg" label="Pan, ° (0 stands still)" />
        <Field name="tiltRangeDeg" label="Tilt, °" />
        <Choice name="sound" label="Sound" options={options(SOUNDS, { hear: 'hears', talk: 'both ways' })} />
        <Field name="cardMaxGB" label="Largest card, GB (0 no slot)" />
      </Group>
      <Group title="Power and network">
        <Field name="dayW" label="By day, W" />
        <Field name="nightW" label="At night, W" />
        <Field name="standbyW" label="Asleep, W" />
        <Field name="batteryWh" label="Battery, Wh" />
        <Field name="poeClass" label="Class over the cable" />
        <Field name="minVolts" label="Least voltage, V" />
        <Field name="maxVolts" label="Highest voltage, V" />
        <Choice name="supplyInBox" label="Supply in the box" options={YES_NO} />
        <Choice name="wired" label="Wired network" options={YES_NO} />
      </Group>
      <div className="flex flex-wrap gap-x-4">
        <span className="self-center text-small text-soft">Fed by</span>
        {POWER_WAYS.map((way) => (
          <Tick key={way} name="ways" value={way} label={POWER_WAY_WORDS[way]} />
        ))}
        <span className="self-center text-small text-soft">Radio</span>
        {RADIO_BANDS.map((band) => (
          <Tick key={band} name="bands" value={band} label={band === 'sub-GHz' ? band : `${band} GHz`} />
        ))}
      </div>
      <Field name="notes" label="Notes" isText />
      <FormFoot onLeave={onLeave} />
    </Form>
  );
}

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
