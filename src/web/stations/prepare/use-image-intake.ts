import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Result } from '../../../core/base/result.ts';
import type { ImageFile } from '../../../core/document/chapters/cameras/reflash.ts';
import { baseName } from '../../../core/firmware/archive.ts';
import { NO_MARKS } from '../../../core/firmware/marks.ts';
import type { Hashed, Looked } from '../../workers/image-intake.ts';
import { imageWorker } from '../../workers/workers.ts';

/** What is under way with a file that was dropped. */
export type Intake =
  | { readonly status: 'idle' }
  | { readonly status: 'reading'; readonly name: string; readonly done: number; readonly of: number }
  | { readonly status: 'choosing'; readonly file: File; readonly zip: Extract<Looked, { kind: 'zip' }> }
  | { readonly status: 'failed'; readonly text: string };

const IDLE: Intake = { status: 'idle' };
const NO_WORKER = 'The browser could not start the checksum worker. Open this page again.';

/**
 * Takes a file in beside the page: looked at, a ZIP opened and one of its files chosen, hashed with progress. Cancelling
 * ends it at once. A failure says what happened, and what was there before stays.
 */
export function useImageIntake(onTaken: (image: ImageFile) => void) {
  const [intake, setIntake] = useState<Intake>(IDLE);
  const running = useRef<{ end(): void } | null>(null);
  const end = (): void => {
    running.current?.end();
    running.current = null;
  };
  useEffect(() => () => running.current?.end(), []);

  const withWorker = async <T>(
    work: (worker: ReturnType<typeof imageWorker>['work']) => Promise<Result<T, string>>,
    onDone: (value: T) => void,
  ): Promise<void> => {
    end();
    const worker = imageWorker();
    running.current = worker;
    const found = await Promise.race([work(worker.work), worker.failed]).catch(
      (): Result<T, string> => ({ ok: false, error: NO_WORKER }),
    );
    if (running.current !== worker) return; // cancelled meanwhile
    end();
    if (found.ok) onDone(found.value);
    else setIntake({ status: 'failed', text: found.error });
  };
  const hash = (file: File, member: string | null, bytes: number): void => {
    const name = member ?? file.name;
    setIntake({ status: 'reading', name, done: 0, of: bytes });
    const onProgress = proxy((done: number) => setIntake((now) => (now.status === 'reading' ? { ...now, done } : now)));
    void withWorker<Hashed>(
      (work) => (member === null ? work.hashFile(file, onProgress) : work.hashMember(file, member, onProgress)),
      (hashed) => {
        setIntake(IDLE);
        onTaken({
          fileName: baseName(name) || 'image',
          archive: member === null ? null : baseName(file.name) || null,
          bytes: hashed.bytes,
          sha256: hashed.sha256,
          published: '',
          version: '',
          hardwareRev: '',
          marks: NO_MARKS,
        });
      },
    );
  };
  return {
    intake,
    drop: (file: File): void => {
      setIntake({ status: 'reading', name: file.name, done: 0, of: file.size });
      void withWorker<Looked>(
        (work) => work.lookAt(file),
        (looked) =>
          looked.kind === 'file' ? hash(file, null, file.size) : setIntake({ status: 'choosing', file, zip: looked }),
      );
    },
    choose: (file: File, member: string, bytes: number): void => hash(file, member, bytes),
    cancel: (): void => {
      end();
      setIntake(IDLE);
    },
  };
}
