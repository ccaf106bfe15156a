import { yupResolver } from '@hookform/resolvers/yup';
import { useFieldArray, useForm } from 'react-hook-form';
import { array, type InferType, object, string } from 'yup';
import { LIST_LIMITS } from '../../../core/base/limits.ts';
import { type CostLine, type CostOption, SCHOOLS } from '../../../core/document/chapters/costing/costing.ts';
import { COST_LINE_FIELDS, COST_OPTION_FIELDS } from '../../../core/document/chapters/costing/costing-fields.ts';
import { planLines, withPlanLines } from '../../../core/places/cost/plan-lines.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { PackFields, packsSchema } from '../../things/destination/index.ts';
import { ThingActs } from '../../things/thing/index.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { FieldError } from '../../ui/field-error.tsx';
import { cellsFor } from '../../ui/form-cells.tsx';
import { Form } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { formTable } from '../../ui/form-table.ts';
import { SCHOOL_WORDS } from './approach-words.ts';

const figures = formTable(COST_OPTION_FIELDS);
const lineFigures = formTable(COST_LINE_FIELDS);
const schema = object({
  ...figures.fields,
  destinationId: string().defined(),
  lines: array(object({ ...lineFigures.fields, of: string().nullable().defined() }))
    .max(LIST_LIMITS.costLines, `At most ${LIST_LIMITS.costLines} lines; combine similar items in one.`)
    .required(),
  packs: packsSchema,
});

type OptionFields = InferType<typeof schema>;
const { Field, Choice, Cell } = cellsFor<OptionFields>();

// Its price stays empty until it is typed.
const NEW_LINE = { label: '', count: 1, of: null } as OptionFields['lines'][number];

const shownLine = (line: CostLine) => ({ ...lineFigures.show(line), of: line.of });

interface OptionDialogProps {
  readonly option: CostOption;
  readonly isNew: boolean;
  readonly onClose: () => void;
  readonly onKeep: (option: CostOption) => void;
}

/** What belongs to one school: things, seats, what it costs by the month, what it draws. */
export function OptionDialog({ option, isNew, onClose, onKeep }: OptionDialogProps) {
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      ...figures.show(option),
      destinationId: option.destinationId ?? '',
      lines: option.lines.map(shownLine),
      packs: option.packs.map((pack) => ({ ...pack })),
    },
  });
  const lines = useFieldArray({ control: form.control, name: 'lines' });
  const site = useAppSelector(selectSite);
  const plan = planLines(site);
  const takePlan = (): void => {
    const now = form.getValues('lines').map((line) => ({ ...lineFigures.read(line), of: line.of }));
    lines.replace(withPlanLines(now, plan).map(shownLine));
  };
  const counting = site.destinations.filter(({ seats }) => seats !== null);
  const { errors } = form.formState;
  const keep = (values: OptionFields): void =>
    onKeep({
      id: option.id,
      ...figures.read(values),
      destinationId: values.destinationId || null,
      lines: values.lines.map((line) => ({ ...lineFigures.read(line), of: line.of })),
      packs: values.packs,
    });
  return (
    <DialogFrame
      title={option.name || 'New option'}
      description="Prices in the currency of the site, with or without tax as you choose."
      isOpen
      isWide
      onOpenChange={onClose}
    >
      <Form form={form} onKeep={keep} className="flex flex-col gap-4">
        <div className="grid grid-cols-2 gap-3 md:grid-cols-5">
          <Field name="name" label="Name" isText className="col-span-2" />
          <Choice
            name="school"
            label="Approach"
            className="md:col-span-3"
            options={SCHOOLS.map((value) => ({ value, label: SCHOOL_WORDS[value] }))}
          />
          <Cell name="subscriptionPerMonth" field={COST_OPTION_FIELDS.subscriptionPerMonth} />
          <Cell name="loadW" field={COST_OPTION_FIELDS.loadW} />
          {counting.length > 0 && (
            <Choice
              name="destinationId"
              label="Licences counted at"
              options={[
                { value: '', label: 'none: as below' },
                ...counting.map(({ id, name }) => ({ value: id, label: name })),
              ]}
            />
          )}
          {form.watch('destinationId') === '' && <Cell name="includedSeats" field={COST_OPTION_FIELDS.includedSeats} />}
        </div>
        <fieldset>
          <legend className="mb-1 font-strong">What is bought</legend>
          {lines.fields.map(({ id }, at) => (
            <div
              key={id}
              className="mb-3 grid grid-cols-3 items-start gap-2 sm:mb-1.5 sm:grid-cols-[1fr_repeat(3,5.5rem)_auto]"
            >
              <Field
                name={`lines.${at}.label`}
                label="What"
                isText
                className="max-sm:col-span-3"
                hint={lines.fields[at]?.of ? 'counted by the plan' : undefined}
              />
              <Cell name={`lines.${at}.price`} field={COST_LINE_FIELDS.price} />
              <Cell name={`lines.${at}.count`} field={COST_LINE_FIELDS.count} />
              <Cell name={`lines.${at}.everyYears`} field={COST_LINE_FIELDS.everyYears} />
              <Button
                kind="quiet"
                className="justify-self-start text-small sm:mt-5"
                aria-label={`Remove line ${at + 1}`}
                onClick={() => lines.remove(at)}
              >
                Remove
              </Button>
            </div>
          ))}
          <FieldError text={errors.lines?.root?.message ?? errors.lines?.message} />
          <span className="flex flex-wrap gap-2">
            <Button onClick={() => lines.append(NEW_LINE)}>Add a line</Button>
            {plan.length > 0 && <Button onClick={takePlan}>Take over what the plan has</Button>}
          </span>
        </fieldset>
        {form.watch('destinationId') === '' && <PackFields />}
        <FormFoot
          onLeave={onClose}
          acts={!isNew && <ThingActs kind="option" id={option.id} onGone={onClose} onCopied={onClose} />}
        />
      </Form>
    </DialogFrame>
  );
}
