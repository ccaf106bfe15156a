import { useMemo, useState } from 'react';
import type { Point } from '../../../core/base/plan-geometry.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Link } from '../../../core/document/chapters/links/link.ts';
import { LINK_FIELDS } from '../../../core/document/chapters/links/link-fields.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { nameOfSubject } from '../../../core/document/subjects.ts';
import { linkLength, sayLength, sayLengthHow } from '../../../core/site/link-length.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import { PowerJudge } from '../../../core/stations/power/index.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { LinkDialog } from '../../things/link/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { NumberField } from '../../ui/number-field.tsx';

interface CableSideProps {
  readonly link: Link;
  readonly drawnRoute: readonly Point[] | null;
  readonly onRoute: (linkId: string) => void;
  readonly onRemove: () => void;
}

/** A cable with what is left at its end, as drawn at this moment: every corner changes the voltage. */
export function CableSide({ link, drawnRoute, onRoute, onRemove }: CableSideProps) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const drawn = useMemo(
    () => (drawnRoute && drawnRoute.length > 1 ? { ...link, route: drawnRoute } : link),
    [link, drawnRoute],
  );
  const judgement = useMemo(() => {
    const links = site.links.map((other) => (other.id === link.id ? drawn : other));
    const judge = new PowerJudge(viewOf({ ...site, links }, index));
    const camera = site.cameras.find(({ id }) => cameraSubject(id) === link.to);
    return camera && judge.feedLinkOf(camera)?.id === link.id ? judge.judge(camera) : null;
  }, [site, index, link.id, link.to, drawn]);
  const [isEdited, setIsEdited] = useState(false);
  const volts = judgement?.run ? judgement.run.nightVolts : (judgement?.cable?.loadVolts ?? null);
  const verdict = judgement?.run?.verdict ?? judgement?.cable?.verdict ?? null;
  return (
    <div className="flex flex-col gap-2">
      <p>
        {nameOfSubject(site, link.from)} to {nameOfSubject(site, link.to)}
      </p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt className="text-soft">length</dt>
        <dd className="font-mono">
          {sayLength(linkLength(site, drawn))}, {sayLengthHow(linkLength(site, drawn))}
        </dd>
        {verdict && (
          <>
            <dt className="text-soft">at its end</dt>
            <dd className="flex items-center gap-1.5">
              <Drop verdict={verdict} size={16} label={VERDICT_WORDS[verdict]} />
              <output className="font-mono font-strong">{volts === null ? 'nothing' : `${volts.toFixed(2)} V`}</output>
              <span className="text-small text-soft">{judgement?.run ? 'at night' : ''}</span>
            </dd>
          </>
        )}
      </dl>
      <NumberField
        label="Risers, slack, loops, m"
        value={link.extraM}
        range={LINK_FIELDS.lengthM.range}
        onKeep={(extraM) => void dispatch(commandIssued({ kind: 'putLink', link: { ...link, extraM: extraM ?? 0 } }))}
      />
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => setIsEdited(true)}>Edit</Button>
        {!drawnRoute && (
          <Button onClick={() => onRoute(link.id)}>{link.route ? 'Draw its route again' : 'Draw its route'}</Button>
        )}
        {link.route && !drawnRoute && (
          <Button kind="quiet" onClick={onRemove}>
            Remove its route
          </Button>
        )}
      </span>
      {isEdited && <LinkDialog link={link} onClose={() => setIsEdited(false)} />}
    </div>
  );
}
