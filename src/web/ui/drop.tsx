import { useId } from 'react';
import type { Verdict } from '../../core/base/verdict.ts';

/** Its outline, pointing up, about the middle of its round part. */
export const DROP_PATH = 'M0,-9 C4.2,-3.4 6.4,-0.6 6.4,2.6 A6.4,6.4 0 0 1 -6.4,2.6 C-6.4,-0.6 -4.2,-3.4 0,-9 Z';

/** The verdict as a shape: full fits, half is tight, struck through won't work, dotted is not known. */
export function DropShape({ verdict }: { verdict: Verdict }) {
  const clip = useId();
  switch (verdict) {
    case 'ok':
      return <path d={DROP_PATH} fill="var(--verdigris)" />;
    case 'tight':
      return (
        <>
          <clipPath id={clip}>
            <rect x="-8" y="1" width="16" height="10" />
          </clipPath>
          <path d={DROP_PATH} fill="var(--sheet)" stroke="var(--brass)" strokeWidth="1.6" />
          <path d={DROP_PATH} fill="var(--brass)" clipPath={`url(#${clip})`} />
        </>
      );
    case 'will-not-work':
      return (
        <>
          <path d={DROP_PATH} fill="var(--sheet)" stroke="var(--brick)" strokeWidth="1.8" />
          <path d="M-6.5,6.5 L6.5,-6" stroke="var(--brick)" strokeWidth="2" />
        </>
      );
    case 'unknown':
      return <path d={DROP_PATH} fill="var(--sheet)" stroke="var(--faint)" strokeWidth="1.3" strokeDasharray="2 2" />;
  }
}

/** A drop in a line of text. Give `label` where no word stands beside it. */
export function Drop({ verdict, label, size = 22 }: { verdict: Verdict; label?: string; size?: number }) {
  const shape = <DropShape verdict={verdict} />;
  const frame = { width: (size * 18) / 22, height: size, viewBox: '-9 -11 18 22' };
  if (label === undefined)
    return (
      <svg {...frame} className="inline-block shrink-0" aria-hidden="true">
        {shape}
      </svg>
    );
  return (
    <svg {...frame} className="inline-block shrink-0" role="img" aria-label={label}>
      <title>{label}</title>
      {shape}
    </svg>
  );
}
