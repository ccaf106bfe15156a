import { type DragEvent, useRef, useState } from 'react';
import { sayBytes } from '../../../core/base/say.ts';
import type { ImageFile } from '../../../core/document/chapters/cameras/reflash.ts';
import { Button } from '../../ui/button.tsx';
import { FileInput } from '../../ui/file-input.tsx';
import { useImageIntake } from './use-image-intake.ts';

interface DropFileProps {
  /** What is to be dropped, as one says it: “the image”. */
  readonly what: string;
  readonly label: string;
  readonly onTaken: (image: ImageFile) => void;
}

const saySize = (bytes: number): string => (bytes < 1e6 ? `${(bytes / 1000).toFixed(1)} kB` : sayBytes(bytes));

/** A place to drop a file. It is read here and stays where it is; nothing of it goes into the site but its digest. */
export function DropFile({ what, label, onTaken }: DropFileProps) {
  const input = useRef<HTMLInputElement>(null);
  const [isOver, setIsOver] = useState(false);
  const { intake, drop, choose, cancel } = useImageIntake(onTaken);
  const take = (event: DragEvent): void => {
    event.preventDefault();
    setIsOver(false);
    const [file] = event.dataTransfer.files;
    if (file) drop(file);
  };
  return (
    <section
      aria-label={`Drop ${what}`}
      onDragOver={(event) => {
        event.preventDefault();
        setIsOver(true);
      }}
      onDragLeave={() => setIsOver(false)}
      onDrop={take}
      className={`rounded-control border border-dashed px-3 py-2 ${isOver ? 'border-verdigris bg-verdigris-wash' : 'border-faint'}`}
    >
      <FileInput ref={input} label={label} accept="" onFile={drop} />
      {intake.status === 'reading' ? (
        <div className="flex flex-wrap items-center gap-3">
          <progress
            aria-label={`Computing the checksum of ${intake.name}`}
            value={intake.done}
            max={Math.max(1, intake.of)}
            className="min-w-40 flex-1"
          />
          <span className="font-mono text-small">
            {saySize(intake.done)} of {saySize(intake.of)}
          </span>
          <Button className="text-small" onClick={cancel}>
            Cancel
          </Button>
        </div>
      ) : intake.status === 'choosing' ? (
        <div>
          <p className="mb-1">
            {intake.file.name} is a ZIP. Which file in it is {what}?
          </p>
          <ul className="flex max-h-56 flex-col overflow-auto">
            {intake.zip.members.map(({ name, bytes, problem }) => (
              <li key={name} className="flex items-center gap-2 border-t border-hair py-1">
                <span className="min-w-0 flex-1">
                  <span className="font-mono text-small break-all">{name}</span>
                  {problem && <span className="block text-small text-brick">{problem}</span>}
                </span>
                <span className="text-small text-soft">{saySize(bytes)}</span>
                <Button
                  className="text-small"
                  disabled={problem !== null}
                  aria-label={`Choose ${name}`}
                  onClick={() => choose(intake.file, name, bytes)}
                >
                  Use it
                </Button>
              </li>
            ))}
          </ul>
          {intake.zip.more > 0 && (
            <p className="text-small text-soft">and {intake.zip.more} more, which are not listed.</p>
          )}
          <Button className="mt-1 text-small" onClick={cancel}>
            Cancel
          </Button>
        </div>
      ) : (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <Button onClick={() => input.current?.click()}>Choose {what}</Button>
          <span className="text-small text-soft">
            or drop it here: it is read on this computer and stays where it is
          </span>
          {intake.status === 'failed' && (
            <p role="alert" className="w-full text-small text-brick">
              {intake.text}
            </p>
          )}
        </div>
      )}
    </section>
  );
}
