import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { nameOfModel } from '../../../../core/document/chapters/models/model-name.ts';
import {
  cardAfter,
  type Lesson,
  lessonsOfCount,
  lessonsOfProbe,
  lessonsOfReading,
} from '../../../../core/evidence/learnt-card.ts';
import { countedSessions } from '../../../../core/evidence/sessions-evidence.ts';
import type { OnvifReading } from '../../../../core/onvif/reading.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { keepCards } from '../../../things/model/index.ts';
import { Button } from '../../../ui/button.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { sayWhen } from '../../../ui/say-when.ts';
import { useSiteView } from '../../use-site-view.ts';

/** Of each field the first that teaches it. */
const once = (lessons: readonly Lesson[]): readonly Lesson[] =>
  lessons.filter(({ field }, at) => lessons.findIndex((one) => one.field === field) === at);

interface CardLessonsProps {
  readonly camera: Camera;
  readonly reading: OnvifReading | null;
  /** It stands there only while there is something to learn. */
  readonly isQuiet?: boolean;
}

/** What the card of its model can learn from this camera, and what it has learnt before. */
export function CardLessons({ camera, reading, isQuiet = false }: CardLessonsProps) {
  const dispatch = useAppDispatch();
  const view = useSiteView();
  const model = view.modelOf(camera);
  if (!model) return null;
  const [main] = camera.streams;
  const facts = main && view.factsOf(main);
  const isMeasured = facts?.codec?.how === 'measured';
  const proven =
    main && isMeasured
      ? lessonsOfProbe(model, camera, {
          stream: main,
          codec: facts.codec?.value ?? null,
          width: facts.width?.value ?? null,
          height: facts.height?.value ?? null,
          fps: facts.fps?.how === 'measured' ? facts.fps.value : null,
        })
      : [];
  const count = countedSessions(view.index, camera.id);
  const counted = count ? lessonsOfCount(model, count.report) : [];
  const lessons = once([...(reading ? lessonsOfReading(model, camera, reading) : []), ...proven, ...counted]);
  if (isQuiet && lessons.length === 0) return null;
  const teach = (): void => {
    const taught = cardAfter(model, lessons, {
      from: `${camera.name}, ${view.site.name}`,
      at: new Date().toISOString(),
    });
    dispatch(commandIssued({ kind: 'putModel', model: taught }));
    void keepCards([taught]).catch(() => {}); // a browser that keeps nothing still has it in the site
  };
  return (
    <Panel
      title={`Model card of ${nameOfModel(model)}`}
      actions={
        lessons.length > 0 && (
          <Button onClick={teach}>Add to it {lessons.length === 1 ? 'this' : `these ${lessons.length}`}</Button>
        )
      }
    >
      {lessons.length === 0 ? (
        <p className="text-small text-soft">
          It has all that this device reported. The next camera of this model is filled in from it.
        </p>
      ) : (
        <ul className="text-small">
          {lessons.map(({ field, said }) => (
            <li key={field} className="flex gap-2 py-0.5">
              <span className="w-32 shrink-0 text-soft">{field}</span>
              <span className="font-mono">{said}</span>
            </li>
          ))}
        </ul>
      )}
      {model.learnedFrom.length > 0 && (
        <details className="mt-2 text-small">
          <summary className="text-soft">Added before: {model.learnedFrom.length}</summary>
          <ul>
            {model.learnedFrom.map(({ field, said, from, at }) => (
              <li key={field} className="flex flex-wrap gap-x-2 py-0.5">
                <span className="w-32 shrink-0 text-soft">{field}</span>
                <span className="font-mono">{said}</span>
                <span className="text-soft">
                  from {from}, {sayWhen(at)}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </Panel>
  );
}
