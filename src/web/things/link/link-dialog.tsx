import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { type InferType, object, string } from 'yup';
import { LINK_MEDIA, type Link } from '../../../core/document/chapters/links/link.ts';
import { LINK_FIELDS } from '../../../core/document/chapters/links/link-fields.ts';
import { nameOfSubject } from '../../../core/document/subjects.ts';
import { linkLength, sayLength, sayLengthHow } from '../../../core/site/link-length.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { cellsFor } from '../../ui/form-cells.tsx';
import { Form } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { formTable } from '../../ui/form-table.ts';
import { ThingActs } from '../thing/index.ts';
import { MEDIUM_WORDS } from './link-words.ts';

const figures = formTable(LINK_FIELDS);
const schema = object({ medium: string().oneOf(LINK_MEDIA).required(), ...figures.fields });
type LinkFields = InferType<typeof schema>;
const { Choice, Cell } = cellsFor<LinkFields>();
const HALF = 'col-span-3';

/** One link: what it is, how long, what stands on its label. A typed length puts a drawing aside. */
export function LinkDialog({ link, onClose }: { link: Link; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const length = linkLength(site, link);
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      medium: link.medium,
      ...figures.show({ ...link, lengthM: link.route ? null : link.lengthM }),
    },
  });
  const keep = (fields: LinkFields): void => {
    const read = figures.read(fields);
    const changed: Link = {
      ...link,
      ...read,
      medium: fields.medium,
      lengthM: read.lengthM ?? (link.route ? link.lengthM : null),
      route: read.lengthM === null ? link.route : null,
    };
    dispatch(commandIssued({ kind: 'putLink', link: changed }));
    onClose();
  };
  const ends = `${nameOfSubject(site, link.from)} to ${nameOfSubject(site, link.to)}`;
  const medium = form.watch('medium');
  return (
    <DialogFrame title={link.name || 'Link'} description={`${ends}.`} isOpen onOpenChange={onClose}>
      <Form form={form} onKeep={keep} className="grid grid-cols-6 items-start gap-x-3 gap-y-3">
        <Cell name="name" field={LINK_FIELDS.name} className={HALF} />
        <Choice
          name="medium"
          label="By"
          className={HALF}
          options={LINK_MEDIA.map((value) => ({ value, label: MEDIUM_WORDS[value] }))}
        />
        {medium !== 'wifi' && (
          <>
            <Cell
              name="lengthM"
              field={{
                ...LINK_FIELDS.lengthM,
                hint: `now ${sayLength(length)}${length ? `, ${sayLengthHow(length)}` : ''}`,
              }}
              className={HALF}
            />
            <Cell name="extraM" field={LINK_FIELDS.extraM} className={HALF} />
          </>
        )}
        {(medium === 'pair' || medium === 'usb') && (
          <Cell name="areaMm2" field={LINK_FIELDS.areaMm2} className={HALF} />
        )}
        {medium !== 'wifi' && medium !== 'fibre' && (
          <Cell name="conductorC" field={LINK_FIELDS.conductorC} className={HALF} />
        )}
        <Cell name="capacityMbps" field={LINK_FIELDS.capacityMbps} className={HALF} />
        <span className="col-span-6 flex flex-wrap gap-x-4">
          <Cell name="isCopperClad" field={LINK_FIELDS.isCopperClad} />
          <Cell name="leavesBuilding" field={LINK_FIELDS.leavesBuilding} />
        </span>
        <FormFoot onLeave={onClose} acts={<ThingActs kind="link" id={link.id} onGone={onClose} onCopied={onClose} />} />
      </Form>
    </DialogFrame>
  );
}
