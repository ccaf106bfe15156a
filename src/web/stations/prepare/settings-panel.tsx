import { useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { FactValue } from '../../../core/document/chapters/journal/entry.ts';
import type { JournalCommand } from '../../../core/document/chapters/journal/journal-commands.ts';
import { sayQuantity } from '../../../core/document/chapters/journal/quantities.ts';
import { agrees, isKnown, type Setting, settingsOf } from '../../../core/stations/prepare/index.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { Panel } from '../../ui/panel.tsx';
import { sayWhen } from '../../ui/say-when.ts';
import { typedNumber } from '../../ui/typed-number.ts';
import { useSiteView } from '../use-site-view.ts';

const LONGEST_VALUE = 80;

export const sayValue = ({ unit }: Pick<Setting, 'unit'>, value: FactValue): string =>
  typeof value === 'number'
    ? `${Number(value.toFixed(2))}${unit ? ` ${unit}` : ''}`
    : `${sayQuantity('', value)}${unit && typeof value === 'string' ? ` ${unit}` : ''}`;

/** The settings that decide whether the later stations succeed: what each should be and why, ticked as it stands. */
export function SettingsPanel({ camera }: { camera: Camera }) {
  const dispatch = useAppDispatch();
  const settings = settingsOf(camera, useSiteView());
  const open = settings.filter((one) => !isKnown(one));
  const sure = open.filter((one) => one.wanted !== null);
  const tick = (setting: Setting, value: FactValue): void =>
    void dispatch(commandIssued(tickOf(camera, setting, value)));
  return (
    <Panel
      title="Settings at the camera"
      aside={`${settings.length - open.length} of ${settings.length} known`}
      actions={
        sure.length > 1 && (
          <Button
            className="text-small"
            onClick={() => {
              for (const setting of sure) if (setting.wanted !== null) tick(setting, setting.wanted);
            }}
          >
            Confirm {sayMany(sure.length, 'setting')} as recommended
          </Button>
        )
      }
    >
      <ol className="flex flex-col">
        {settings.map((setting) => (
          <SettingLine
            key={`${setting.id} ${setting.subject}`}
            setting={setting}
            onTick={(value) => tick(setting, value)}
            onTakeBack={() =>
              dispatch(
                commandIssued({
                  kind: 'withdrawSetting',
                  cameraId: camera.id,
                  subject: setting.subject,
                  setting: setting.id,
                  said: setting.label,
                }),
              )
            }
          />
        ))}
      </ol>
    </Panel>
  );
}

const tickOf = (camera: Camera, { id, subject, label }: Setting, value: FactValue): JournalCommand => ({
  kind: 'recordSetting',
  cameraId: camera.id,
  subject,
  setting: id,
  said: label,
  value,
  by: 'at its page',
});

interface SettingLineProps {
  readonly setting: Setting;
  readonly onTick: (value: FactValue) => void;
  readonly onTakeBack: () => void;
}

function SettingLine({ setting, onTick, onTakeBack }: SettingLineProps) {
  const { id, label, wanted, why, ticked, seen } = setting;
  const isApart = ticked !== null && seen !== null && !agrees(id, ticked.value, seen);
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 gap-y-0.5 border-b border-hair py-1.5 last:border-b-0">
      <span className="min-w-0">
        {label}
        {wanted !== null && (
          <>
            {' '}
            <b className="whitespace-nowrap">{sayValue(setting, wanted)}</b>
          </>
        )}
        <span className="block text-small text-soft">{why}</span>
      </span>
      <span className="flex flex-wrap items-center justify-end gap-x-2 gap-y-1 text-small">
        {seen !== null && (
          <span className={`flex items-center gap-1.5 ${isApart ? 'text-brick' : ''}`}>
            <span className="font-mono">{sayValue(setting, seen)}</span>
            <KnownHowMark how="measured" detail="by a probe" />
          </span>
        )}
        {ticked ? (
          <>
            <span className="flex items-center gap-1.5">
              <span className="font-mono">{sayValue(setting, ticked.value)}</span>
              <KnownHowMark how={ticked.how} detail={sayWhen(ticked.takenAt ?? '')} />
            </span>
            <Button kind="quiet" className="text-small" aria-label={`Undo: ${label}`} onClick={onTakeBack}>
              Undo
            </Button>
          </>
        ) : (
          <Ticks setting={setting} onTick={onTick} />
        )}
      </span>
    </li>
  );
}

/** How a setting is ticked: a word for each state it can have, or what stands in its field. */
function Ticks({ setting, onTick }: { setting: Setting; onTick: (value: FactValue) => void }) {
  const { kind, label, options, unit, wanted } = setting;
  if (kind === 'flag')
    return (
      <>
        {[true, false].map((value) => (
          <Button
            key={String(value)}
            className={`text-small ${wanted === value ? '' : 'text-soft'}`}
            aria-label={`${label}: ${value ? 'yes' : 'no'}`}
            onClick={() => onTick(value)}
          >
            {value ? 'Yes' : 'No'}
          </Button>
        ))}
      </>
    );
  if (kind === 'choice')
    return (
      <>
        {options.map((value) => (
          <Button
            key={value}
            className={`text-small ${wanted === null || wanted === value ? '' : 'text-soft'}`}
            aria-label={`${label}: ${value}${unit}`}
            onClick={() => onTick(value)}
          >
            {value}
            {unit}
          </Button>
        ))}
      </>
    );
  return <TypedTick setting={setting} onTick={onTick} />;
}

function TypedTick({ setting, onTick }: { setting: Setting; onTick: (value: FactValue) => void }) {
  const { kind, label, unit, wanted } = setting;
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? (wanted === null ? '' : String(wanted));
  const value = kind === 'number' ? typedNumber(text, unit) : text.trim();
  const isSound = kind === 'number' ? typeof value === 'number' && Number.isFinite(value) && value >= 0 : value !== '';
  const tick = (): void => {
    if (isSound && value !== undefined) onTick(value);
  };
  return (
    <>
      <input
        aria-label={`As recommended: ${label}`}
        inputMode={kind === 'number' ? 'decimal' : 'text'}
        maxLength={LONGEST_VALUE}
        value={text}
        placeholder="as recommended"
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && tick()}
        className={`min-h-7 rounded-control border border-hair bg-paper px-2 font-mono text-small pointer-coarse:min-h-11 ${kind === 'number' ? 'w-16' : 'w-28'}`}
      />
      {unit && <span className="text-soft">{unit}</span>}
      <Button className="text-small" disabled={!isSound} aria-label={`Seen: ${label}`} onClick={tick}>
        Checked
      </Button>
    </>
  );
}
