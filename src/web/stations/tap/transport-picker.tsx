import type { TransportChoice } from '../../../core/rtsp/client-types.ts';

const TRANSPORTS: readonly { value: TransportChoice; text: string; title: string }[] = [
  { value: 'auto', text: 'TCP, else UDP', title: 'TCP is requested first; UDP when the camera refuses it' },
  { value: 'tcp', text: 'TCP', title: 'Inside the RTSP connection: passes firewalls, loses no packets on the way' },
  { value: 'udp', text: 'UDP', title: 'Beside the connection: shows packet loss' },
];

/** How the next probe asks for its packets. */
export function TransportPicker({
  value,
  onChange,
}: {
  value: TransportChoice;
  onChange: (choice: TransportChoice) => void;
}) {
  return (
    <select
      aria-label="Transport"
      title={TRANSPORTS.find((one) => one.value === value)?.title}
      value={value}
      onChange={(event) => onChange(TRANSPORTS.find((one) => one.value === event.target.value)?.value ?? 'auto')}
      className="h-8 rounded-sheet border border-hair bg-sheet px-1.5 text-small pointer-coarse:h-11"
    >
      {TRANSPORTS.map((one) => (
        <option key={one.value} value={one.value}>
          {one.text}
        </option>
      ))}
    </select>
  );
}
