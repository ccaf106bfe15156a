import { type RefObject, useState } from 'react';
import { clipText } from '../../../../core/base/clip.ts';
import { TEXT_LIMITS } from '../../../../core/base/limits.ts';
import type { Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import { type HeadPreset, STEERING_LIMITS } from '../../../../core/document/chapters/cameras/ptz.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued } from '../../../store/site-slice.ts';
import { useAppDispatch } from '../../../store/store.ts';
import { ThingActs } from '../../../things/thing/index.ts';
import { Button } from '../../../ui/button.tsx';
import { KeptText, nameIsNeeded } from '../../../ui/kept-text.tsx';
import { Panel } from '../../../ui/panel.tsx';
import { TextField } from '../../../ui/text-field.tsx';
import { stillOf } from './snapshot.ts';
import type { Hand } from './use-ptz.ts';

interface PresetsPanelProps {
  readonly camera: Camera;
  readonly hand: Hand;
  readonly canvas: RefObject<HTMLCanvasElement | null>;
  readonly onGo: (preset: { readonly token: string; readonly name: string }) => void;
}

/** Places that the head comes back to: kept at the device, and in the site with a name and a picture. */
export function PresetsPanel({ camera, hand, canvas, onGo }: PresetsPanelProps) {
  const dispatch = useAppDispatch();
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const { presets } = camera.steering;
  const { state } = hand;
  const isReady = state.status === 'ready';
  const most = state.ability?.node.mostPresets ?? null;
  const unknownHere = state.presets.filter(({ token }) => !presets.some((one) => one.token === token));
  const put = (preset: HeadPreset): void =>
    void dispatch(commandIssued({ kind: 'putHeadPreset', cameraId: camera.id, preset }));
  const isFull = presets.length >= STEERING_LIMITS.presets;

  const keepPlace = async (): Promise<void> => {
    const wanted = name.trim() || `Preset ${presets.length + 1}`;
    setProblem(null);
    const still = stillOf(canvas.current);
    const did = await hand.ask({ kind: 'keepPreset', name: wanted, token: null });
    if (!did.ok || !did.token) return setProblem(`The preset was not stored. ${did.note}`);
    put({ id: newId('preset'), name: wanted, token: did.token, still });
    setName('');
  };

  return (
    <Panel title="Presets" aside={most === null ? undefined : `${state.presets.length} of ${most} on the device`}>
      {most === 0 ? (
        <p className="text-small text-soft">It stores no presets.</p>
      ) : (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void keepPlace();
          }}
        >
          <TextField
            label="Name of this preset"
            className="w-52"
            maxLength={TEXT_LIMITS.label}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button type="submit" disabled={!isReady || isFull}>
            Save the present position
          </Button>
        </form>
      )}
      {problem && (
        <p role="alert" className="mt-1 text-small text-brick">
          {problem}
        </p>
      )}
      <ul aria-label="Presets saved" className="mt-2 flex flex-col divide-y divide-grid">
        {presets.map((preset) => (
          <li key={preset.id} className="flex flex-wrap items-center gap-3 py-2">
            {preset.still ? (
              <img
                src={preset.still}
                alt={`What ${preset.name} shows`}
                width={96}
                height={54}
                className="border border-hair object-cover"
              />
            ) : (
              <span className="inline-flex h-[54px] w-24 items-center justify-center border border-dotted border-faint text-small text-soft">
                no picture
              </span>
            )}
            <KeptText
              label="Name"
              name={`Name of preset ${preset.name}`}
              isCode={false}
              className="w-40"
              value={preset.name}
              maxLength={TEXT_LIMITS.label}
              remarkOf={nameIsNeeded}
              onKeep={(text) => put({ ...preset, name: text })}
            />
            <span className="flex flex-wrap gap-2">
              <Button aria-label={`Go to ${preset.name}`} disabled={!isReady} onClick={() => onGo(preset)}>
                Go
              </Button>
              <Button
                aria-label={`New picture of ${preset.name}`}
                onClick={() => {
                  const still = stillOf(canvas.current);
                  setProblem(still ? null : 'No picture: open the live picture above first.');
                  if (still) put({ ...preset, still });
                }}
              >
                New picture
              </Button>
              <ThingActs kind="headPreset" id={preset.id} onGone={() => {}} />
            </span>
          </li>
        ))}
      </ul>
      {unknownHere.length > 0 && (
        <>
          <p className="mt-2 text-small text-soft">On the device, not saved here</p>
          <ul aria-label="Presets on the device" className="divide-y divide-grid">
            {unknownHere.map(({ token, name: said }) => {
              const shown = said || `preset ${token}`;
              return (
                <li key={token} className="flex flex-wrap items-center gap-2 py-1">
                  <span className="min-w-24">{shown}</span>
                  <Button
                    aria-label={`Go to ${shown}`}
                    disabled={!isReady}
                    onClick={() => onGo({ token, name: shown })}
                  >
                    Go
                  </Button>
                  <Button
                    aria-label={`Save ${shown} here too`}
                    disabled={isFull}
                    onClick={() =>
                      put({ id: newId('preset'), name: clipText(shown, TEXT_LIMITS.label), token, still: '' })
                    }
                  >
                    Save it here too
                  </Button>
                  <Button
                    aria-label={`Delete ${shown} on the device`}
                    disabled={!isReady}
                    onClick={() => void hand.ask({ kind: 'removePreset', token })}
                  >
                    Delete it there
                  </Button>
                </li>
              );
            })}
          </ul>
        </>
      )}
    </Panel>
  );
}
