import { MOST_SAMPLE_S, SAMPLE_S } from '../../../core/probe/sample-lengths.ts';

const LENGTHS: readonly { readonly seconds: number; readonly text: string; readonly title: string }[] = [
  { seconds: SAMPLE_S, text: `${SAMPLE_S} s`, title: 'Enough for resolution, bit rate and GOP' },
  { seconds: 10, text: '10 s', title: 'For a long key-frame interval' },
  { seconds: 60, text: '60 s', title: 'For rare packet loss, a drift of the audio, and sender reports' },
  {
    seconds: MOST_SAMPLE_S,
    text: 'until stopped',
    title: `Ends when you stop it, or after ${MOST_SAMPLE_S / 60} minutes`,
  },
];

/** How long the next probe measures. */
export function SamplePicker({ value, onChange }: { value: number; onChange: (seconds: number) => void }) {
  return (
    <select
      aria-label="Sample length"
      title={LENGTHS.find(({ seconds }) => seconds === value)?.title}
      value={value}
      onChange={(event) => onChange(Number(event.target.value))}
      className="h-8 rounded-sheet border border-hair bg-sheet px-1.5 text-small pointer-coarse:h-11"
    >
      {LENGTHS.map(({ seconds, text }) => (
        <option key={seconds} value={seconds}>
          {text}
        </option>
      ))}
    </select>
  );
}
