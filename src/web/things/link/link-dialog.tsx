import { yupResolver } from '@hookform/resolvers/yup';
import { useForm } from 'react-hook-form';
import { boolean, type InferType, object, string } from 'yup';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { LINK_MEDIA, LINK_RANGES, type Link } from '../../../core/document/chapters/links/link.ts';
import { nameOfSubject } from '../../../core/document/subjects.ts';
import { linkLength, sayLength, sayLengthHow } from '../../../core/site/link-length.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { Form, fieldsFor } from '../../ui/form-fields.tsx';
import { FormFoot } from '../../ui/form-foot.tsx';
import { optionalNumber } from '../../ui/form-numbers.ts';
import { textField } from '../../ui/form-texts.ts';
import { ThingActs } from '../thing/index.ts';
import { MEDIUM_WORDS } from './link-words.ts';

const schema = object({
  name: textField(TEXT_LIMITS.name),
  medium: string().oneOf(LINK_MEDIA).required(),
  lengthM: optionalNumber('Length', LINK_RANGES.lengthM),
  extraM: optionalNumber('Slack', LINK_RANGES.lengthM),
  areaMm2: optionalNumber('Wire', LINK_RANGES.areaMm2),
  conductorC: optionalNumber('Warmest', LINK_RANGES.conductorC),
  capacityMbps: optionalNumber('Capacity', LINK_RANGES.capacityMbps),
  isCopperClad: boolean().required(),
  leavesBuilding: boolean().required(),
});
type LinkFields = InferType<typeof schema>;
const { Field, Choice, Tick } = fieldsFor<LinkFields>();

/** One link: what it is, how long, what stands on its label. A typed length puts a drawing aside. */
export function LinkDialog({ link, onClose }: { link: Link; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const length = linkLength(site, link);
  const form = useForm({
    resolver: yupResolver(schema),
    defaultValues: {
      name: link.name,
      medium: link.medium,
      lengthM: link.route ? undefined : (link.lengthM ?? undefined),
      extraM: link.extraM,
      areaMm2: link.areaMm2 ?? undefined,
      conductorC: link.conductorC,
      capacityMbps: link.capacityMbps ?? undefined,
      isCopperClad: link.isCopperClad,
      leavesBuilding: link.leavesBuilding,
    },
  });
  const keep = (fields: LinkFields): void => {
    const { lengthM, extraM, areaMm2, conductorC, capacityMbps, ...rest } = fields;
    const changed: Link = {
      ...link,
      ...rest,
      lengthM: lengthM ?? (link.route ? link.lengthM : null),
      route: lengthM === undefined ? link.route : null,
      extraM: extraM ?? 0,
      areaMm2: areaMm2 ?? null,
      conductorC: conductorC ?? link.conductorC,
      capacityMbps: capacityMbps ?? null,
    };
    dispatch(commandIssued({ kind: 'putLink', link: changed }));
    onClose();
  };
  const ends = `${nameOfSubject(site, link.from)} to ${nameOfSubject(site, link.to)}`;
  const medium = form.watch('medium');
  return (
    <DialogFrame title={link.name || 'Link'} description={`${ends}.`} isOpen onOpenChange={onClose}>
      <Form form={form} onKeep={keep} className="grid grid-cols-6 items-start gap-x-3 gap-y-3">
        <Field name="name" label="Label" isText placeholder="C-07" className="col-span-3" />
        <Choice
          name="medium"
          label="By"
          className="col-span-3"
          options={LINK_MEDIA.map((value) => ({ value, label: MEDIUM_WORDS[value] }))}
        />
        {medium !== 'wifi' && (
          <>
            <Field
              name="lengthM"
              label="Length, m"
              hint={`now ${sayLength(length)}${length ? `, ${sayLengthHow(length)}` : ''}`}
              className="col-span-3"
            />
            <Field name="extraM" label="Risers, slack, loops, m" className="col-span-3" />
          </>
        )}
        {(medium === 'pair' || medium === 'usb') && (
          <Field name="areaMm2" label="Wire, mm²" placeholder="as usual" className="col-span-3" />
        )}
        {medium !== 'wifi' && medium !== 'fibre' && (
          <Field name="conductorC" label="Warmest, °C" className="col-span-3" />
        )}
        <Field name="capacityMbps" label="It carries, Mbit/s" placeholder="as its ends say" className="col-span-3" />
        <span className="col-span-6 flex flex-wrap gap-x-4">
          <Tick name="isCopperClad" label="copper-clad aluminium" />
          <Tick name="leavesBuilding" label="leaves the building" />
        </span>
        <FormFoot onLeave={onClose} acts={<ThingActs kind="link" id={link.id} onGone={onClose} onCopied={onClose} />} />
      </Form>
    </DialogFrame>
  );
}
