import { useFieldArray, useFormContext } from 'react-hook-form';
import { array, type InferType, object } from 'yup';
import { LIST_LIMITS } from '../../../core/base/limits.ts';
import { PACK_RANGES } from '../../../core/cost/licence-packs.ts';
import { Button } from '../../ui/button.tsx';
import { FieldError } from '../../ui/field-error.tsx';
import { fieldsFor } from '../../ui/form-fields.tsx';
import { neededNumber } from '../../ui/form-numbers.ts';

/** Packs of seats as they are typed, for a destination and for an option of cost. */
export const packsSchema = array(
  object({
    seats: neededNumber('Licences', PACK_RANGES.seats),
    price: neededNumber('Price', PACK_RANGES.price),
  }),
)
  .max(LIST_LIMITS.costPacks, `At most ${LIST_LIMITS.costPacks} packs.`)
  .required();

interface WithPacks {
  readonly packs: InferType<typeof packsSchema>;
}
const { Field } = fieldsFor<WithPacks>();

/** Empty until they are typed: neither a price nor a number of seats has a usual size. */
const NEW_PACK = {} as WithPacks['packs'][number];

/** Within a form that has packs. */
export function PackFields({ className }: { className?: string }) {
  const { control, formState } = useFormContext<WithPacks>();
  const packs = useFieldArray({ control, name: 'packs' });
  const { errors } = formState;
  return (
    <fieldset className={className}>
      <legend className="mb-1 text-small text-soft">Packs of more licences, as they are sold</legend>
      {packs.fields.map(({ id }, at) => (
        <div key={id} className="mb-1.5 grid grid-cols-[repeat(2,7rem)_auto] items-start gap-2">
          <Field name={`packs.${at}.seats`} label={`Pack ${at + 1}, licences`} />
          <Field name={`packs.${at}.price`} label={`Pack ${at + 1}, price`} />
          <Button
            kind="quiet"
            className="mt-5 justify-self-start text-small"
            aria-label={`Remove pack ${at + 1}`}
            onClick={() => packs.remove(at)}
          >
            Remove
          </Button>
        </div>
      ))}
      <FieldError text={errors.packs?.root?.message ?? errors.packs?.message} />
      <Button onClick={() => packs.append(NEW_PACK)}>Add a pack</Button>
    </fieldset>
  );
}
