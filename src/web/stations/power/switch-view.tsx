import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Gear } from '../../../core/document/chapters/gear/gear.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import type { PowerJudge } from '../../../core/stations/power/index.ts';
import { Drop } from '../../ui/drop.tsx';

interface SwitchViewProps {
  readonly gear: Extract<Gear, { kind: 'switch' }>;
  readonly judge: PowerJudge;
  readonly camera: Camera;
}

/** A switch as a measure: what each port reserves of its budget, and what is left. */
export function SwitchView({ gear, judge, camera }: SwitchViewProps) {
  const { budget, fed } = judge.budgetOf(gear);
  const subject = cameraSubject(camera.id);
  const portsLeft = gear.poePorts - fed.length;
  const full = Math.max(gear.budgetW, budget.totalW);
  let before = 0;
  return (
    <div className="mt-3">
      <p className="flex flex-wrap items-center gap-x-2">
        <Drop verdict={budget.verdict} size={18} label={VERDICT_WORDS[budget.verdict]} />
        <b>{gear.name}</b>
        <span className="font-mono">
          {budget.isWhole ? '' : '≥ '}
          {budget.totalW.toFixed(1)} of {gear.budgetW} W
        </span>
        <span className="text-soft">
          {gear.reserves === 'class' ? 'reserved by class' : 'by measured power'} · {Math.max(0, portsLeft)} of{' '}
          {gear.poePorts} ports left
        </span>
      </p>
      <svg viewBox="0 0 600 40" className="mt-1 block w-full max-w-[600px]">
        <title>{`${gear.name}: ${budget.totalW.toFixed(1)} of ${gear.budgetW} W`}</title>
        <rect x="0" y="6" width="600" height="18" fill="none" stroke="var(--hair)" />
        {budget.ports.map(({ port, reservedW, grantedClass }) => {
          const x = (before / full) * 600;
          before += reservedW;
          const width = (reservedW / full) * 600;
          const isOwn = fed[port]?.subject === subject;
          return (
            <g key={port}>
              <rect
                x={x}
                y="6"
                width={width}
                height="18"
                fill={isOwn ? 'var(--verdigris)' : 'var(--verdigris-wash)'}
                stroke="var(--sheet)"
              />
              <text x={x + 4} y="37" className="fill-soft text-[12px]">
                {width > 60 ? `${fed[port]?.name}, class ${grantedClass}: ${reservedW.toFixed(1)} W` : ''}
              </text>
            </g>
          );
        })}
        <line
          x1={(gear.budgetW / full) * 600}
          x2={(gear.budgetW / full) * 600}
          y1="1"
          y2="29"
          stroke="var(--brick)"
          strokeWidth="2"
        />
      </svg>
    </div>
  );
}
