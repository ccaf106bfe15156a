import type Konva from 'konva';
import { type RefObject, useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import type { Site } from '../../../core/document/site.ts';
import { planSvg } from '../../../core/handover/plan-svg.ts';
import { percentEncode } from '../../../core/net/percent.ts';
import { Button } from '../../ui/button.tsx';
import { download, fileNameOf } from '../../ui/download.ts';
import type { WedgeHandle } from './views-sheet.tsx';

interface PlanOutProps {
  readonly site: Site;
  readonly wedges: RefObject<WedgeHandle | null>;
  readonly stage: RefObject<Konva.Stage | null>;
}

/** The plan for others: as a drawing, as a picture, on paper. Written when it is asked for: a large site takes its time. */
export function PlanOut({ site, wedges, stage }: PlanOutProps) {
  const [printed, setPrinted] = useState<string | null>(null);
  const svg = (): string => planSvg(site, wedges.current?.drawn() ?? new Map());
  const name = `${fileNameOf(site.name)}-plan`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: listened to once; the drawing is written at that moment
  useEffect(() => {
    const before = (): void => flushSync(() => setPrinted(svg()));
    const after = (): void => setPrinted(null);
    addEventListener('beforeprint', before);
    addEventListener('afterprint', after);
    return () => {
      removeEventListener('beforeprint', before);
      removeEventListener('afterprint', after);
    };
  }, [site]);
  const savePng = (): void => {
    const url = stage.current?.toDataURL({ pixelRatio: 2, mimeType: 'image/png' });
    if (!url) return;
    const link = document.createElement('a');
    link.href = url;
    link.download = `${name}.png`;
    link.click();
  };
  return (
    <>
      <span className="no-print ml-auto flex gap-2">
        <Button onClick={() => download(`${name}.svg`, 'image/svg+xml', svg())}>Save as SVG</Button>
        <Button onClick={savePng}>Save as PNG</Button>
        <Button onClick={() => print()}>Print</Button>
      </span>
      {printed !== null && (
        <img
          alt={`Plan of ${site.name}`}
          className="hidden w-full print:block"
          src={`data:image/svg+xml;charset=utf-8,${percentEncode(printed)}`}
        />
      )}
    </>
  );
}
