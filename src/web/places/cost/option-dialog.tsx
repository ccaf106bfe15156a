import { yupResolver } from '@hookform/resolvers/yup';
import { useFieldArray, useForm } from 'react-hook-form';
import { array, object, string } from 'yup';
import { LIST_LIMITS } from '../../../core/base/limits.ts';
import { type CostOption, SCHOOLS } from '../../../core/document/chapters/costing/costing.ts';
import { linesOfSite } from '../../../core/places/cost/option-cost.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { neededNumber, optionalNumber } from '../../ui/form-numbers.ts';
import { nameField } from '../../ui/form-texts.ts';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { SCHOOL_WORDS } from './school-words.ts';

const schema = object({
  name: nameField(),
  school: string().oneOf(SCHOOLS).required(),
  lines: array(
    object({
      label: nameField('What is bought?'),
      price: neededNumber('Price', { min: 0, max: 1e7 }),
      count: neededNumber('How many', { min: 0, max: 10_000 }),
      everyYears: optionalNumber('Every', { min: 0.5, max: 50, unit: 'years' }),
    }),
  )
    .max(LIST_LIMITS.costLines, `At most ${LIST_LIMITS.costLines} lines fit; count alike things in one.`)
    .required(),
  packs: array(
    object({
      seats: neededNumber('Seats', { min: 1, max: 1000 }),
      price: neededNumber('Price', { min: 0, max: 1e7 }),
    }),
  )
    .max(LIST_LIMITS.costPacks, `At most ${LIST_LIMITS.costPacks} packs fit.`)
    .required(),
  includedSeats: neededNumber('Included seats', { min: 0, max: 10_000 }),
  subscriptionPerMonth: neededNumber('Subscription', { min: 0, max: 1e6 }),
  loadW: neededNumber('Watts', { min: 0, max: 100_000, unit: 'W' }),
});

const FieldError = ({ text }: { text: string | undefined }) =>
  text === undefined ? null : (
    <p role="alert" className="mb-1.5 text-small text-brick">
      {text}
    </p>
  );

interface OptionDialogProps {
  readonly option: CostOption;
  readonly isNew: boolean;
  readonly onClose: () => void;
  readonly onKeep: (option: CostOption) => void;
  readonly onRemove: () => void;
}

/** What belongs to one school: things, seats, what it costs by the month, what it draws. */
export function OptionDialog({ option, isNew, onClose, onKeep, onRemove }: OptionDialogProps) {
  const { register, control, handleSubmit, formState, watch, setValue } = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      ...option,
      lines: option.lines.map((line) => ({ ...line, everyYears: line.everyYears ?? undefined })),
      packs: option.packs.map((pack) => ({ ...pack })),
    },
  });
  const lines = useFieldArray({ control, name: 'lines' });
  const site = useAppSelector(selectSite);
  const siteLines = linesOfSite(site);
  const packs = useFieldArray({ control, name: 'packs' });
  const { errors } = formState;
  const keep = handleSubmit((values) =>
    onKeep({
      id: option.id,
      name: values.name,
      school: values.school,
      lines: values.lines.map((line) => ({
        ...line,
        count: Math.round(line.count),
        everyYears: line.everyYears ?? null,
      })),
      packs: values.packs.map((pack) => ({ seats: Math.round(pack.seats), price: pack.price })),
      includedSeats: Math.round(values.includedSeats),
      subscriptionPerMonth: values.subscriptionPerMonth,
      loadW: values.loadW,
    }),
  );
  return (
    <DialogFrame
      title={option.name || 'New option'}
      description="Prices in the currency of the site, tax as you count it."
      isOpen
      isWide
      onOpenChange={onClose}
    >
      <form onSubmit={(event) => void keep(event)} className="flex flex-col gap-4" noValidate>
        <div className="grid grid-cols-2 gap-3 md:grid-cols-5">
          <TextField label="Name" className="col-span-2" error={errors.name?.message} {...register('name')} />
          <SelectField
            label="School"
            className="md:col-span-3"
            value={watch('school')}
            onChange={(value) => setValue('school', SCHOOLS.find((one) => one === value) ?? 'software')}
            options={SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }))}
          />
          <TextField
            label="Subscription a month"
            inputMode="decimal"
            error={errors.subscriptionPerMonth?.message}
            {...register('subscriptionPerMonth')}
          />
          <TextField
            label="It draws, W (no cameras)"
            inputMode="decimal"
            error={errors.loadW?.message}
            {...register('loadW')}
          />
          <TextField
            label="Seats included"
            inputMode="numeric"
            error={errors.includedSeats?.message}
            {...register('includedSeats')}
          />
        </div>
        <fieldset>
          <legend className="mb-1 font-strong">What is bought</legend>
          {lines.fields.map(({ id }, at) => (
            <div key={id} className="mb-1.5 grid grid-cols-[1fr_repeat(3,5.5rem)_auto] items-start gap-2">
              <TextField label="What" error={errors.lines?.[at]?.label?.message} {...register(`lines.${at}.label`)} />
              <TextField
                label="Price"
                inputMode="decimal"
                error={errors.lines?.[at]?.price?.message}
                {...register(`lines.${at}.price`)}
              />
              <TextField
                label="How many"
                inputMode="numeric"
                error={errors.lines?.[at]?.count?.message}
                {...register(`lines.${at}.count`)}
              />
              <TextField
                label="Every … years"
                inputMode="decimal"
                placeholder="lasts"
                error={errors.lines?.[at]?.everyYears?.message}
                {...register(`lines.${at}.everyYears`)}
              />
              <Button kind="quiet" className="mt-5 text-small" onClick={() => lines.remove(at)}>
                Out
              </Button>
            </div>
          ))}
          <FieldError text={errors.lines?.root?.message ?? errors.lines?.message} />
          <span className="flex flex-wrap gap-2">
            <Button onClick={() => lines.append({ label: '', price: 0, count: 1, everyYears: undefined })}>
              Add a line
            </Button>
            {siteLines.length > 0 && (
              <Button
                onClick={() =>
                  lines.append(siteLines.map((line) => ({ ...line, everyYears: line.everyYears ?? undefined })))
                }
              >
                Add the chosen cameras
              </Button>
            )}
          </span>
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-strong">Packs of seats, as they are sold</legend>
          {packs.fields.map(({ id }, at) => (
            <div key={id} className="mb-1.5 grid grid-cols-[repeat(2,7rem)_auto] items-start gap-2">
              <TextField
                label="Seats"
                inputMode="numeric"
                error={errors.packs?.[at]?.seats?.message}
                {...register(`packs.${at}.seats`)}
              />
              <TextField
                label="Price"
                inputMode="decimal"
                error={errors.packs?.[at]?.price?.message}
                {...register(`packs.${at}.price`)}
              />
              <Button kind="quiet" className="mt-5 justify-self-start text-small" onClick={() => packs.remove(at)}>
                Out
              </Button>
            </div>
          ))}
          <FieldError text={errors.packs?.root?.message ?? errors.packs?.message} />
          <Button onClick={() => packs.append({ seats: 1, price: 0 })}>Add a pack</Button>
        </fieldset>
        <FormFoot onLeave={onClose} onRemove={isNew ? undefined : onRemove} />
      </form>
    </DialogFrame>
  );
}
