import { type KeyboardEvent, type PointerEvent, useId, useMemo, useRef, useState } from 'react';
import { sayIpv4 } from '../../../core/net/ipv4.ts';
import type { Drop, Pin, Ruler } from '../../../core/places/network/ruler.ts';
import { useWidth } from '../../ui/use-width.ts';
import { layOut, type RulerLayout } from './ruler-layout.ts';

interface AddressRulerProps {
  readonly ruler: Ruler;
  readonly label: string;
  readonly onMove: (pin: Pin, address: number) => void;
}

interface Held {
  readonly pin: Pin;
  readonly address: number;
}

const KIND_WORDS: Readonly<Record<Pin['kind'], string>> = {
  reservation: 'reserved',
  static: 'static on the device',
  dynamic: 'DHCP without a reservation',
  unsaid: 'address assignment not decided',
  destination: 'destination',
  gateway: 'gateway',
};

/** All addresses of a network, folded into rows: pins are planned, drops answer. A camera's pin is dragged, or moved by arrow keys. */
export function AddressRuler({ ruler, label, onMove }: AddressRulerProps) {
  const { ref, width } = useWidth<HTMLDivElement>();
  const hatch = useId();
  const [held, setHeld] = useState<Held | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const layout = useMemo(() => (width === 0 ? null : layOut(ruler, width)), [ruler, width]);
  const taken = useMemo(() => new Set(ruler.pins.map(({ address }) => address)), [ruler]);
  const isFree = ({ pin, address }: Held): boolean => address === pin.address || !taken.has(address);
  const under = (event: PointerEvent): number | null => {
    const box = svg.current?.getBoundingClientRect();
    return box && layout ? layout.addressAt(event.clientX - box.left, event.clientY - box.top) : null;
  };
  const drop = (): void => {
    if (held && held.address !== held.pin.address && isFree(held)) onMove(held.pin, held.address);
    setHeld(null);
  };
  const onKey = (pin: Pin) => (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -(layout?.columns ?? 64), ArrowDown: layout?.columns ?? 64 }[
      event.key
    ];
    if (step !== undefined) {
      event.preventDefault();
      let address = (held?.pin === pin ? held.address : pin.address) + step;
      while (taken.has(address) && address !== pin.address) address += Math.sign(step);
      if (address >= ruler.first && address <= ruler.last) setHeld({ pin, address });
    } else if (event.key === 'Enter' && held?.pin === pin) {
      event.preventDefault();
      drop();
    } else if (event.key === 'Escape') setHeld(null);
  };
  return (
    <div ref={ref}>
      {layout && (
        // biome-ignore lint/a11y/useSemanticElements: a group of a drawing has no element of its own
        <svg
          ref={svg}
          role="group"
          aria-label={label}
          width={width}
          height={layout.height}
          className="block select-none"
          onPointerMove={(event) => {
            const address = held && under(event);
            if (held && address !== null) setHeld({ ...held, address });
          }}
          onPointerUp={drop}
          onPointerCancel={() => setHeld(null)}
        >
          <defs>
            <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <line x1="0" y1="0" x2="0" y2="6" stroke="var(--faint)" strokeWidth="1" />
            </pattern>
          </defs>
          <Rows ruler={ruler} layout={layout} hatch={hatch} />
          {ruler.threads.map((thread) => (
            <ThreadLine key={thread.name} from={layout.placeOf(thread.from)} to={layout.placeOf(thread.to)} />
          ))}
          {ruler.drops.map((one) => (
            <DropMark key={`${one.address}`} drop={one} layout={layout} />
          ))}
          {ruler.pins.map((pin) => (
            <PinMark
              key={`${pin.kind} ${pin.name}`}
              pin={pin}
              layout={layout}
              isHeld={held?.pin === pin}
              onHold={(event) => {
                if (pin.cameras.length === 0) return;
                svg.current?.setPointerCapture(event.pointerId);
                setHeld({ pin, address: pin.address });
              }}
              onKeyDown={onKey(pin)}
            />
          ))}
          {held && held.address !== held.pin.address && <Ghost held={held} layout={layout} isFree={isFree(held)} />}
        </svg>
      )}
      <p aria-live="polite" className="sr-only">
        {held ? `${held.pin.name} to ${sayIpv4(held.address)}. Enter saves it there.` : ''}
      </p>
    </div>
  );
}

const FIRST_NAME_PX = 40;

/** Ticks with every tenth named, the pool hatched, both ends capped. */
function Rows({ ruler, layout, hatch }: { ruler: Ruler; layout: RulerLayout; hatch: string }) {
  const { pool } = ruler;
  return layout.rows.map(({ first, baseline }) => {
    const last = Math.min(ruler.last, first + layout.columns - 1);
    const left = layout.placeOf(first).x - layout.pitch / 2;
    const right = layout.placeOf(last).x + layout.pitch / 2;
    const from = Math.max(first, pool?.from ?? Number.POSITIVE_INFINITY);
    const to = Math.min(last, pool?.to ?? -1);
    const ticks = Array.from({ length: last - first + 1 }, (_, at) => first + at);
    // the first of a row is named whole, and needs the room of a few
    const isNamed = (address: number): boolean =>
      address === first || ((address % 256) % 10 === 0 && (address - first) * layout.pitch > FIRST_NAME_PX);
    return (
      <g key={first}>
        {to >= from && (
          <rect
            x={layout.placeOf(from).x - layout.pitch / 2}
            y={baseline}
            width={(to - from + 1) * layout.pitch}
            height="9"
            fill={`url(#${hatch})`}
          />
        )}
        <line x1={left} x2={right} y1={baseline} y2={baseline} stroke="var(--ink)" />
        <path
          d={ticks
            .map((address) => `M${layout.placeOf(address).x} ${baseline}v${(address % 256) % 10 === 0 ? 9 : 5}`)
            .join('')}
          stroke="var(--soft)"
          strokeWidth="1"
        />
        {ticks.filter(isNamed).map((address) => (
          <text
            key={address}
            x={layout.placeOf(address).x}
            y={baseline + 26}
            textAnchor="middle"
            className="fill-soft font-mono text-[11px]"
          >
            {address % 256 === 0 || address === first ? sayIpv4(address).split('.').slice(2).join('.') : address % 256}
          </text>
        ))}
        {[ruler.network, ruler.broadcast].map(
          (end) =>
            end !== null &&
            end >= first &&
            end <= last && (
              <rect
                key={end}
                x={layout.placeOf(end).x - Math.min(4, layout.pitch / 2)}
                y={baseline - 5}
                width={Math.min(8, layout.pitch)}
                height="14"
                fill="var(--ink)"
              >
                <title>{end === ruler.network ? 'the network itself' : 'broadcast'}</title>
              </rect>
            ),
        )}
      </g>
    );
  });
}

const pinColour = ({ wrong, kind }: Pin): string =>
  wrong !== ''
    ? 'var(--brick)'
    : kind === 'dynamic'
      ? 'var(--brass)'
      : kind === 'reservation' || kind === 'static'
        ? 'var(--verdigris)'
        : 'var(--soft)';

/** The head of a pin tells how its address stays: a ball is reserved, a bar is set on the device, a ring is left to chance. */
function PinHead({ kind, x, y, colour }: { kind: Pin['kind']; x: number; y: number; colour: string }) {
  switch (kind) {
    case 'reservation':
      return <circle cx={x} cy={y} r="4" fill={colour} />;
    case 'static':
      return <rect x={x - 5} y={y - 1.5} width="10" height="3" fill={colour} />;
    case 'dynamic':
      return <circle cx={x} cy={y} r="4" fill="var(--sheet)" stroke={colour} strokeWidth="1.6" />;
    case 'unsaid':
      return (
        <circle cx={x} cy={y} r="4" fill="var(--sheet)" stroke={colour} strokeWidth="1.4" strokeDasharray="1.6 1.6" />
      );
    case 'destination':
      return (
        <rect x={x - 3.5} y={y - 3.5} width="7" height="7" fill="var(--sheet)" stroke={colour} strokeWidth="1.4" />
      );
    case 'gateway':
      return <path d={`M${x - 5} ${y + 3}h10v-3l-5 -4l-5 4z`} fill={colour} />;
  }
}

interface PinMarkProps {
  readonly pin: Pin;
  readonly layout: RulerLayout;
  readonly isHeld: boolean;
  readonly onHold: (event: PointerEvent) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
}

function PinMark({ pin, layout, isHeld, onHold, onKeyDown }: PinMarkProps) {
  const { x, y } = layout.placeOf(pin.address);
  const label = layout.labels.get(pin);
  const colour = pinColour(pin);
  const isCamera = pin.cameras.length > 0;
  const top = label ? label.y : y - 12;
  const words = `${pin.name}, ${sayIpv4(pin.address)}, ${KIND_WORDS[pin.kind]}${pin.wrong === '' ? '' : `, ${pin.wrong}`}`;
  const drawn = (
    <>
      <title>{words}</title>
      <line x1={x} x2={x} y1={y} y2={top} stroke={colour} strokeWidth="1.2" />
      <PinHead kind={pin.kind} x={x} y={top} colour={colour} />
      {label && (
        <text
          x={label.x}
          y={top + 4}
          stroke="var(--sheet)"
          strokeWidth="4"
          className={`text-[12px] [paint-order:stroke] ${pin.wrong === '' ? 'fill-ink' : 'fill-brick font-strong'}`}
        >
          {label.text}
        </text>
      )}
      <rect x={x - 9} y={top - 9} width="18" height={y - top + 12} fill="transparent" />
    </>
  );
  if (!isCamera) return <g>{drawn}</g>;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot be drawn inside a drawing
    <g
      role="button"
      tabIndex={0}
      aria-label={`${words}. Arrow keys move it`}
      className={`cursor-grab touch-none outline-offset-2 ${isHeld ? 'opacity-40' : ''}`}
      onPointerDown={onHold}
      onKeyDown={onKeyDown}
    >
      {drawn}
    </g>
  );
}

function Ghost({ held: { pin, address }, layout, isFree }: { held: Held; layout: RulerLayout; isFree: boolean }) {
  const { x, y } = layout.placeOf(address);
  const colour = isFree ? 'var(--verdigris)' : 'var(--brick)';
  return (
    <g pointerEvents="none">
      <line x1={x} x2={x} y1={y} y2={y - 20} stroke={colour} strokeWidth="1.6" />
      <PinHead kind={pin.kind} x={x} y={y - 20} colour={colour} />
      <text x={x} y={y - 28} textAnchor="middle" className="font-mono text-[12px] font-strong" fill={colour}>
        {sayIpv4(address)}
        {isFree ? '' : ' is in use'}
      </text>
    </g>
  );
}

const DROP_LOOKS: Readonly<
  Record<Drop['state'], { readonly fill: string; readonly stroke: string; readonly words: string }>
> = {
  'in-place': { fill: 'var(--verdigris)', stroke: 'var(--verdigris)', words: 'at its planned address' },
  moved: { fill: 'var(--brass)', stroke: 'var(--brass)', words: 'moved' },
  double: { fill: 'var(--brick)', stroke: 'var(--brick)', words: 'answers at two addresses' },
  unproven: { fill: 'var(--sheet)', stroke: 'var(--verdigris)', words: 'at its address, not identified' },
  'other-at-address': { fill: 'var(--brick)', stroke: 'var(--brick)', words: 'different device' },
  destination: { fill: 'var(--soft)', stroke: 'var(--soft)', words: 'a destination' },
  gateway: { fill: 'var(--soft)', stroke: 'var(--soft)', words: 'the gateway' },
  new: { fill: 'var(--sheet)', stroke: 'var(--ink)', words: 'unknown here' },
};

function DropMark({ drop, layout }: { drop: Drop; layout: RulerLayout }) {
  const { x, y } = layout.placeOf(drop.address);
  const { fill, stroke, words } = DROP_LOOKS[drop.state];
  const top = y + 1;
  return (
    <path
      d={`M${x} ${top}c1 3 4 5 4 8.4a4 4 0 0 1 -8 0c0 -3.4 3 -5.4 4 -8.4z`}
      fill={fill}
      stroke={stroke}
      strokeWidth="1.2"
    >
      <title>{`${sayIpv4(drop.address)} answers: ${drop.name || 'no name'}, ${words}`}</title>
    </path>
  );
}

function ThreadLine({ from, to }: { from: { x: number; y: number }; to: { x: number; y: number } }) {
  const dip = Math.max(from.y, to.y) + 26;
  return (
    <path
      d={`M${from.x} ${from.y + 2}C${from.x} ${dip} ${to.x} ${dip} ${to.x} ${to.y + 14}`}
      fill="none"
      stroke="var(--brass)"
      strokeWidth="1.6"
      strokeDasharray="4 3"
    />
  );
}
