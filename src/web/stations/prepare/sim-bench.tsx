import { useState } from 'react';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { bytes } from '../../../core/base/units.ts';
import type { ReflashGuide } from '../../../core/firmware/guide.ts';
import { isLitAt, sayLed } from '../../../core/firmware/led.ts';
import { FILE_SYSTEMS, type FileSystem, partitionWithin } from '../../../core/firmware/memory-card.ts';
import { type Content, ledOf, type SimCard } from '../../../core/firmware/simulated-camera.ts';
import { Button } from '../../ui/button.tsx';
import { CheckField } from '../../ui/check-field.tsx';
import { LedScore } from '../../ui/led-score.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import type { Rehearsal } from './use-rehearsal.ts';

const SIZES_GB = ['8', '16', '32', '64', '128'] as const;
/** Of the lamp itself, which shines the same by day and on a dark sheet. */
const INKS = { red: '#b23a2e', amber: '#b8791c', green: '#2c7a4b', blue: '#2c62a0', white: '#f4efdd' } as const;
const CONTENT_WORDS: Readonly<Record<Content, string>> = {
  new: 'the new firmware',
  stock: 'the original firmware file',
  spoilt: 'firmware of another revision',
};

/** A simulated camera with its card, its button and its plug: it does what a real one would, and says why. */
export function SimBench({ guide, rehearsal }: { guide: ReflashGuide; rehearsal: Rehearsal }) {
  const { camera, act, now } = rehearsal;
  const isBack = rehearsal.run.direction === 'back';
  const [sizeGB, setSizeGB] = useState<string>('32');
  const [isSmall, setIsSmall] = useState(true);
  const [fileSystem, setFileSystem] = useState<FileSystem>(guide.fileSystem);
  const [name, setName] = useState(isBack ? guide.backName : guide.imageName);
  const [content, setContent] = useState<Content>(isBack ? 'stock' : 'new');
  const sign = ledOf(camera, guide);
  const isLit = isLitAt(sign, now - camera.sinceMs);
  const isOn = camera.phase !== 'off';
  const cardBytes = Number(sizeGB) * 1e9;
  const card: SimCard = {
    bytes: cardBytes,
    fileSystem,
    partitionMiB: isSmall ? partitionWithin(bytes(cardBytes), guide.limitGiB).sizeMiB : null,
    files: [{ name, content }],
  };
  return (
    <Panel title="Simulated camera" aside="it behaves as a real one would">
      <div className="grid grid-cols-[150px_minmax(0,1fr)] items-start gap-x-4">
        <svg viewBox="0 0 150 170" className="block w-full" role="img" aria-label={`Its LED: ${sayLed(sign)}`}>
          <rect
            x="38"
            y="18"
            width="74"
            height="88"
            rx="30"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
          <circle cx="75" cy="58" r="22" fill="#17262d" stroke="var(--ink)" />
          <circle cx="69" cy="52" r="6" fill="#54646b" />
          <circle
            cx="75"
            cy="94"
            r="6"
            fill={isLit ? INKS[sign.colour] : 'var(--paper)'}
            stroke="var(--ink)"
            strokeWidth="1.2"
          />
          <path d="M60 106 h30 l8 18 h-46 Z" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.5" />
          <rect
            x="112"
            y="58"
            width="8"
            height="16"
            fill={camera.isHeld ? 'var(--brass)' : 'var(--sheet)'}
            stroke="var(--ink)"
          />
          {camera.card && <rect x="24" y="60" width="16" height="22" fill="var(--verdigris)" stroke="var(--ink)" />}
          <path
            d={isOn ? 'M75 124 V142 H75 V160' : 'M75 124 V138 M75 152 V160'}
            stroke={isOn ? 'var(--ink)' : 'var(--brick)'}
            strokeWidth="3"
            fill="none"
          />
          <text x="124" y="70" fontSize="9" fill="var(--soft)">
            button
          </text>
          <text x="2" y="56" fontSize="9" fill="var(--soft)">
            card
          </text>
          <text x="82" y="160" fontSize="9" fill={isOn ? 'var(--soft)' : 'var(--brick)'}>
            {isOn ? 'power' : 'no power'}
          </text>
        </svg>
        <div className="min-w-0">
          <LedScore sign={sign} />
          <div className="mt-2 flex flex-wrap gap-2">
            <Button onClick={() => act({ kind: isOn ? 'unplug' : 'plug' })}>{isOn ? 'Unplug it' : 'Plug it in'}</Button>
            <Button aria-pressed={camera.isHeld} onClick={() => act({ kind: camera.isHeld ? 'release' : 'press' })}>
              {camera.isHeld ? 'Release the button' : 'Hold the button'}
            </Button>
            <Button onClick={() => act({ kind: 'card', card: camera.card ? null : card })}>
              {camera.card ? 'Remove the SD card' : 'Insert the SD card'}
            </Button>
          </div>
        </div>
      </div>
      {/* on a real one nobody says it: first one thinks */}
      <details className="mt-2 text-small">
        <summary className="w-fit py-1 font-strong text-verdigris">Why it does that</summary>
        <p role="status">{camera.why}</p>
      </details>
      <fieldset disabled={camera.card !== null} className="mt-3 border-t border-hair pt-2 disabled:opacity-60">
        <legend className="sr-only">SD card</legend>
        <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2">
          <SelectField
            label="SD card, GB"
            value={sizeGB}
            onChange={setSizeGB}
            options={SIZES_GB.map((value) => ({ value, label: value }))}
          />
          <SelectField
            label="File system"
            value={fileSystem}
            onChange={(value) => setFileSystem(FILE_SYSTEMS.find((one) => one === value) ?? 'FAT32')}
            options={FILE_SYSTEMS.map((value) => ({ value, label: value }))}
          />
          <TextField
            label="Name of its file"
            isCode
            maxLength={TEXT_LIMITS.fileName}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <SelectField
            label="Content"
            value={content}
            onChange={(value) => setContent(value === 'stock' || value === 'spoilt' ? value : 'new')}
            options={(['new', 'stock', 'spoilt'] as const).map((value) => ({ value, label: CONTENT_WORDS[value] }))}
          />
          <CheckField
            label="with a partition that is small enough"
            className="col-span-2"
            checked={isSmall}
            onChange={(event) => setIsSmall(event.target.checked)}
          />
        </div>
      </fieldset>
    </Panel>
  );
}
