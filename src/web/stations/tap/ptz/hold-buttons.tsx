import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, Minus, Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import type { PtzVelocity } from '../../../../core/onvif/services/ptz.ts';
import { Button } from '../../../ui/button.tsx';
import type { Hand } from './use-ptz.ts';

interface HoldButtonProps {
  readonly label: string;
  readonly way: PtzVelocity;
  readonly hand: Hand;
  readonly className?: string;
  readonly children: ReactNode;
}

/** Turns for as long as it is pressed, by pointer, thumb or key. */
function HoldButton({ label, way, hand, className = '', children }: HoldButtonProps) {
  return (
    <button
      type="button"
      aria-label={label}
      disabled={hand.state.status !== 'ready'}
      className={`inline-flex size-11 touch-none items-center justify-center border border-hair bg-sheet select-none hover:border-ink active:bg-verdigris-wash disabled:opacity-50 pointer-coarse:size-14 ${className}`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        hand.hold(way);
      }}
      onPointerUp={hand.release}
      onPointerCancel={hand.release}
      onContextMenu={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        if ((event.key === 'Enter' || event.key === ' ') && !event.repeat) {
          event.preventDefault();
          hand.hold(way);
        }
      }}
      onKeyUp={(event) => (event.key === 'Enter' || event.key === ' ') && hand.release()}
      onBlur={hand.release}
    >
      {children}
    </button>
  );
}

/** Four ways to turn, two to zoom, and the stop in the middle. */
export function HoldButtons({ hand, speed }: { hand: Hand; speed: number }) {
  const node = hand.state.ability?.node;
  const zooms = node?.continuousZoom != null;
  return (
    <div className="flex items-center gap-4">
      <fieldset aria-label="Move it while held" className="grid grid-cols-[repeat(3,auto)] gap-1">
        <span />
        <HoldButton label="Up" way={{ pan: 0, tilt: speed, zoom: 0 }} hand={hand}>
          <ArrowUp size={20} aria-hidden="true" />
        </HoldButton>
        <span />
        <HoldButton label="Left" way={{ pan: -speed, tilt: 0, zoom: 0 }} hand={hand}>
          <ArrowLeft size={20} aria-hidden="true" />
        </HoldButton>
        <Button
          className="size-11 px-0! pointer-coarse:size-14"
          disabled={hand.state.status !== 'ready'}
          onClick={hand.stop}
        >
          Stop
        </Button>
        <HoldButton label="Right" way={{ pan: speed, tilt: 0, zoom: 0 }} hand={hand}>
          <ArrowRight size={20} aria-hidden="true" />
        </HoldButton>
        <span />
        <HoldButton label="Down" way={{ pan: 0, tilt: -speed, zoom: 0 }} hand={hand}>
          <ArrowDown size={20} aria-hidden="true" />
        </HoldButton>
      </fieldset>
      {zooms && (
        <fieldset aria-label="Zoom while held" className="flex flex-col gap-1">
          <HoldButton label="Closer" way={{ pan: 0, tilt: 0, zoom: speed }} hand={hand}>
            <Plus size={20} aria-hidden="true" />
          </HoldButton>
          <HoldButton label="Wider" way={{ pan: 0, tilt: 0, zoom: -speed }} hand={hand}>
            <Minus size={20} aria-hidden="true" />
          </HoldButton>
        </fieldset>
      )}
    </div>
  );
}
