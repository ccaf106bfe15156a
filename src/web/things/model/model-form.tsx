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
import { CheckField } from '../../ui/check-field.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { cardOf, fieldsOf, modelFormSchema, USUAL_LENS } from './model-form-schema.ts';

const NOT_KNOWN = { value: '', label: 'not known' };
const YES_NO = [NOT_KNOWN, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }];
const options = (values: readonly string[], words: Readonly<Record<string, string>> = {}) => [
  NOT_KNOWN,
  ...values.map((value) => ({ value, label: words[value] ?? value })),
];

interface ModelFormProps {
  readonly card: Model | null;
  readonly onLeave: () => void;
  readonly onKeep: (card: Model) => void;
}

/** Everything a card may say, in the order of a data sheet. */
export function ModelForm({ card, onLeave, onKeep }: ModelFormProps) {
  const { register, control, handleSubmit, formState, watch, setValue } = useForm({
    resolver: yupResolver(modelFormSchema),
    defaultValues: card ? fieldsOf(card) : { ...fieldsOf(emptyModel('new', '', '')), lenses: [USUAL_LENS] },
  });
  const lenses = useFieldArray({ control, name: 'lenses' });
  const { errors } = formState;
  type Name = Parameters<typeof register>[0];
  const field = (name: Name, label: string, error?: string, isText = false) => (
    <TextField key={name} label={label} inputMode={isText ? 'text' : 'decimal'} error={error} {...register(name)} />
  );
  type Choice = 'localStream' | 'sub' | 'lightKind' | 'sound' | 'supplyInBox' | 'wired';
  const choice = (name: Choice, label: string, list: readonly { value: string; label: string }[]) => (
    <SelectField label={label} value={watch(name)} onChange={(value) => setValue(name, value)} options={list} />
  );
  const keep = handleSubmit((fields) => onKeep(cardOf(card?.id ?? newId('model'), fields, card)));
  return (
    <form onSubmit={(event) => void keep(event)} className="flex flex-col gap-4" noValidate>
      <Group title="Make and model">
        {field('maker', 'Make', errors.maker?.message, true)}
        {field('model', 'Model', errors.model?.message, true)}
        {field('hardwareRev', 'Hardware revision', errors.hardwareRev?.message, true)}
        {field('price', 'Price of one', errors.price?.message)}
        {field('seats', 'Seats it takes', errors.seats?.message)}
      </Group>
      <Group title="Stream">
        {choice('localStream', 'On this network', options(LOCAL_STREAMS, LOCAL_STREAM_WORDS))}
        {field('sessions', 'Clients at once', errors.sessions?.message)}
        {field('codecs', 'Codecs of the main stream', errors.codecs?.message, true)}
        {field('fps', 'Frames a second', errors.fps?.message)}
        {choice('sub', 'Sub stream', YES_NO)}
        {watch('sub') === 'yes' && (
          <>
            {field('subWidthPx', 'Sub, pixels across', errors.subWidthPx?.message)}
            {field('subHeightPx', 'Sub, pixels down', errors.subHeightPx?.message)}
            {field('subFps', 'Sub, frames a second', errors.subFps?.message)}
          </>
        )}
        {field('lost', 'Lost without its account', errors.lost?.message, true)}
      </Group>
      {lenses.fields.map(({ id }, at) => {
        const wrong = errors.lenses?.[at];
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
                    setValue(`lenses.${at}.sensorWidthMm`, format.widthMm);
                    setValue(`lenses.${at}.sensorHeightMm`, format.heightMm);
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
            {field(`lenses.${at}.sensorWidthMm`, 'Sensor width, mm', wrong?.sensorWidthMm?.message)}
            {field(`lenses.${at}.sensorHeightMm`, 'Sensor height, mm', wrong?.sensorHeightMm?.message)}
            {field(`lenses.${at}.focalWideMm`, 'Focal length, mm', wrong?.focalWideMm?.message)}
            {field(`lenses.${at}.focalTeleMm`, 'Longest, if it zooms', wrong?.focalTeleMm?.message)}
            {field(`lenses.${at}.widthPx`, 'Pixels across', wrong?.widthPx?.message)}
            {field(`lenses.${at}.heightPx`, 'Pixels down', wrong?.heightPx?.message)}
            {field(`lenses.${at}.measuredHfovDeg`, 'Measured view, °', wrong?.measuredHfovDeg?.message)}
            {lenses.fields.length > 1 && field(`lenses.${at}.axisDeg`, 'Axis to the right, °', wrong?.axisDeg?.message)}
            <CheckField label="Bends like a fisheye" className="self-end" {...register(`lenses.${at}.bends`)} />
          </Group>
        );
      })}
      {lenses.fields.length < 2 && (
        <Button className="self-start" onClick={() => lenses.append(USUAL_LENS)}>
          {lenses.fields.length === 0 ? 'Add a lens' : 'Add a second lens'}
        </Button>
      )}
      <Group title="Night, weather, movement, sound">
        {choice('lightKind', 'Light', options(LIGHT_KINDS))}
        {field('lightReachM', 'Its reach, rated, m', errors.lightReachM?.message)}
        {field('lightAngleDeg', 'Its angle, °', errors.lightAngleDeg?.message)}
        {field('ingress', 'IP code, as 66', errors.ingress?.message)}
        {field('panRangeDeg', 'Pan, ° (0 stands still)', errors.panRangeDeg?.message)}
        {field('tiltRangeDeg', 'Tilt, °', errors.tiltRangeDeg?.message)}
        {choice('sound', 'Sound', options(SOUNDS, { hear: 'hears', talk: 'both ways' }))}
        {field('cardMaxGB', 'Largest card, GB (0 no slot)', errors.cardMaxGB?.message)}
      </Group>
      <Group title="Power and network">
        {field('dayW', 'By day, W', errors.dayW?.message)}
        {field('nightW', 'At night, W', errors.nightW?.message)}
        {field('standbyW', 'Asleep, W', errors.standbyW?.message)}
        {field('batteryWh', 'Battery, Wh', errors.batteryWh?.message)}
        {field('poeClass', 'Class over the cable', errors.poeClass?.message)}
        {field('minVolts', 'Least voltage, V', errors.minVolts?.message)}
        {field('maxVolts', 'Highest voltage, V', errors.maxVolts?.message)}
        {choice('supplyInBox', 'Supply in the box', YES_NO)}
        {choice('wired', 'Wired network', YES_NO)}
      </Group>
      <div className="flex flex-wrap gap-x-4">
        <span className="self-center text-small text-soft">Fed by</span>
        {POWER_WAYS.map((way) => (
          <CheckField key={way} value={way} label={POWER_WAY_WORDS[way]} {...register('ways')} />
        ))}
        <span className="self-center text-small text-soft">Radio</span>
        {RADIO_BANDS.map((band) => (
          <CheckField
            key={band}
            value={band}
            label={band === 'sub-GHz' ? band : `${band} GHz`}
            {...register('bands')}
          />
        ))}
      </div>
      <TextField label="Notes" error={errors.notes?.message} {...register('notes')} />
      <FormFoot onLeave={onLeave} />
    </form>
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
