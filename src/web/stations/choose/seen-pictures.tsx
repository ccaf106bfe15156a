import { useEffect, useMemo, useRef, useState } from 'react';
import type { Verdict } from '../../../core/base/verdict.ts';
import type { Need } from '../../../core/document/chapters/cameras/need.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { judgeDetail, levelAt, pxPerMOf, readText } from '../../../core/optics/detail-levels.ts';
import type { SpotView } from '../../../core/optics/ground-view.ts';
import type { Raster } from '../../../core/optics/resample.ts';
import type { LensService } from '../../../core/site/needs.ts';
import { Drop } from '../../ui/drop.tsx';
import { Panel } from '../../ui/panel.tsx';
import { PickButton } from '../../ui/pick-button.tsx';
import { pixelWorker } from '../../workers/workers.ts';
import { drawTarget, FRAME_ASPECT, framingM, TARGET_FONT, TARGET_WORDS, TARGETS, type Target } from './test-target.ts';

export interface Seen {
  readonly model: Model;
  readonly lensAt: number;
  readonly service: LensService;
}

interface SeenPicturesProps {
  readonly need: Need;
  /** One for each lens of each model. */
  readonly seen: readonly Seen[];
}

/** What arrives of a target, in exactly the pixels that each camera gives it, and enlarged to one size. */
export function SeenPictures({ need, seen }: SeenPicturesProps) {
  const [target, setTarget] = useState<Target>(need.text ? 'text' : 'figure');
  const isFontReady = useTargetFont();
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn anew when its letters have arrived
  const master = useMemo(() => drawTarget(target, need), [target, need, isFontReady]);
  const widthM = framingM(target, need);
  const spotOf = ({ service }: Seen) => (target === 'text' ? service.text : service.face);
  const densityOf = (one: Seen): number => spotOf(one).pxPerM;
  const inView = seen.filter((one) => spotOf(one).isInView);
  const sharpest = Math.max(...inView.map(densityOf));
  // The camera that zooms least, brought to the framing of the one that sees most: larger, and no clearer.
  const plain = inView.find((one) => one.service.view.zoom <= 1.001 && densityOf(one) < sharpest * 0.67);
  return (
    <Panel
      title="Expected picture"
      aside={`${TARGET_WORDS[target]} at ${need.distanceM} m, drawn with exactly the pixels that each camera has there`}
      actions={TARGETS.map((value) => (
        <PickButton
          key={value}
          isPicked={target === value}
          onPick={() => setTarget(value)}
          className="px-1.5 text-small"
        >
          {TARGET_WORDS[value]}
        </PickButton>
      ))}
    >
      <ul
        className={`grid grid-cols-1 gap-3 ${seen.length + (plain ? 1 : 0) > 3 ? 'sm:grid-cols-4' : 'sm:grid-cols-3'}`}
      >
        {seen.map((one) => {
          const { zoom, lens } = one.service.view;
          const key = `${one.model.id}:${one.lensAt}`;
          const name = [
            nameOfModel(one.model),
            one.model.lenses.length > 1 ? `${lens.label} lens` : null,
            zoom > 1.001 ? `optical ${zoom.toFixed(1)}×` : null,
          ]
            .filter(Boolean)
            .join(', ');
          if (!spotOf(one).isInView) return <Unseen key={key} name={name} />;
          return (
            <SeenPicture
              key={key}
              master={master}
              widthM={widthM}
              spot={spotOf(one)}
              name={name}
              said={sayOf(target, need, spotOf(one))}
            />
          );
        })}
        {plain && (
          <SeenPicture
            master={master}
            widthM={widthM}
            spot={spotOf(plain)}
            isSmooth
            name={`${nameOfModel(plain.model)}, digital ${(sharpest / densityOf(plain)).toFixed(1)}×`}
            said={{ ...sayOf(target, need, spotOf(plain)), text: 'the same pixels: larger, not sharper' }}
          />
        )}
      </ul>
    </Panel>
  );
}

/** The letters of the target are ours; until they are loaded others stand in. */
function useTargetFont(): boolean {
  const [isReady, setIsReady] = useState(false);
  useEffect(() => {
    document.fonts.load(TARGET_FONT).then(
      () => setIsReady(true),
      () => {},
    );
  }, []);
  return isReady;
}

interface Said {
  readonly verdict: Verdict;
  readonly text: string;
}
const TEXT_WORDS: Readonly<Record<Verdict, string>> = {
  ok: 'can be read',
  tight: 'is guessed',
  'will-not-work': 'cannot be read',
  unknown: 'not known',
};

function sayOf(target: Target, need: Need, { pxPerM, uprightPxPerM }: SpotView): Said {
  if (target === 'text') {
    const { pxPerChar, verdict } = readText(Math.min(pxPerM, uprightPxPerM), need.text?.charHeightMm ?? 60);
    return { verdict, text: `${pxPerChar.toFixed(0)} px a character: ${TEXT_WORDS[verdict]}` };
  }
  const wanted = need.level ?? (target === 'face' ? 'identify' : 'recognise');
  const level = levelAt(pxPerM);
  return {
    verdict: judgeDetail(pxPerM, pxPerMOf(wanted)),
    text: `${Math.round(pxPerM)} px/m: ${level === 'below-monitor' ? 'less than monitor' : level}`,
  };
}

/** About as wide as a picture is shown: beyond that it is made smaller, and picking single pixels would fray it. */
const SHOWN_PX = 240;

/** The target lies outside of what a lens sees: no picture of it is made up. */
function Unseen({ name }: { name: string }) {
  return (
    <li>
      <p className="flex aspect-[2.4] items-center justify-center border border-dashed border-hair px-2 text-center text-small text-soft">
        outside its picture
      </p>
      <p className="mt-1 flex items-start gap-1.5">
        <Drop verdict="will-not-work" size={18} />
        <span>
          <b className="block text-small">{name}</b>
          <span className="block text-small text-soft">tilt it, zoom out, or turn it there</span>
        </span>
      </p>
    </li>
  );
}

interface SeenPictureProps {
  readonly master: Raster;
  readonly widthM: number;
  /** How many pixels it gets, across and, looked down upon, fewer from top to bottom. */
  readonly spot: Pick<SpotView, 'pxPerM' | 'uprightPxPerM'>;
  readonly name: string;
  readonly said: Said;
  readonly isSmooth?: boolean;
}

function SeenPicture({ master, widthM, spot, name, said, isSmooth = false }: SeenPictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const across = Math.max(1, Math.min(master.width, Math.round(widthM * spot.pxPerM)));
  const steepness = Math.min(1, spot.uprightPxPerM / spot.pxPerM);
  const down = Math.max(1, Math.min(master.height, Math.round((across / FRAME_ASPECT) * steepness)));
  useEffect(() => {
    let isWanted = true;
    void pixelWorker()
      .sampleDown(master, across, down)
      .then(({ rgba }) => {
        const context = canvas.current?.getContext('2d');
        if (!isWanted || !canvas.current || !context) return;
        canvas.current.width = across;
        canvas.current.height = down;
        context.putImageData(new ImageData(new Uint8ClampedArray(rgba), across, down), 0, 0);
      });
    return () => {
      isWanted = false;
    };
  }, [master, across, down]);
  return (
    <li>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`${name}: ${across} pixels across, ${said.text}`}
        className="block aspect-[2.4] w-full border border-hair"
        style={{ imageRendering: isSmooth || across > SHOWN_PX ? 'auto' : 'pixelated' }}
      />
      <p className="mt-1 flex items-start gap-1.5">
        <Drop verdict={said.verdict} size={18} />
        <span>
          <b className="block text-small">{name}</b>
          <span className="block text-small text-soft">
            {said.text} · {across} px across
          </span>
        </span>
      </p>
    </li>
  );
}
