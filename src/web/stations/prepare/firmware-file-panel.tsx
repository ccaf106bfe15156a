import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { sayCount } from '../../../core/base/say.ts';
import type { ImageFile } from '../../../core/document/chapters/cameras/reflash.ts';
import { MARK_WORDS } from '../../../core/firmware/guide.ts';
import { MARKS } from '../../../core/firmware/marks.ts';
import { compareHash, digestProblem, type HashVerdict } from '../../../core/firmware/published-hash.ts';
import { Button } from '../../ui/button.tsx';
import { CheckField } from '../../ui/check-field.tsx';
import { CopyButton } from '../../ui/copy-button.tsx';
import { KeptText } from '../../ui/kept-text.tsx';
import { Panel } from '../../ui/panel.tsx';
import type { BenchProps } from './bench-props.ts';
import { DropFile } from './drop-file.tsx';

const HASH_WORDS: Readonly<Record<HashVerdict, { readonly text: string; readonly look: string }>> = {
  ok: { text: 'It is the published file.', look: 'text-verdigris' },
  mismatch: { text: 'It differs from the published file. Download it again.', look: 'text-brick' },
  'bad-digest': { text: 'The published checksum is incomplete.', look: 'text-brick' },
  unsaid: {
    text: 'Enter the checksum from where it was published: until then it cannot be compared.',
    look: 'text-soft',
  },
};

/** The image that is to be written. */
export function ImagePanel({ reflash, set }: BenchProps) {
  return (
    <Panel title="Firmware file" aside="the file stays where it is; its checksum is saved">
      <DropFile
        what="the firmware file"
        label="Choose the firmware file"
        onTaken={(image) => set({ image: keepSaid(image, reflash.image) })}
      />
      {reflash.image && (
        <ImageFacts
          image={reflash.image}
          hasMarks
          onChange={(image) => set({ image })}
          onGone={() => set({ image: null })}
        />
      )}
    </Panel>
  );
}

/** The image of before: the way back, or that there is none. */
export function BackPanel({ reflash, set }: BenchProps) {
  return (
    <Panel title="Way back" aside="the firmware that it came with">
      <DropFile
        what="the original firmware file"
        label="Original firmware file"
        onTaken={(backImage) => set({ backImage: keepSaid(backImage, reflash.backImage), isBackGivenUp: false })}
      />
      {reflash.backImage ? (
        <ImageFacts
          image={reflash.backImage}
          hasMarks={false}
          onChange={(backImage) => set({ backImage })}
          onGone={() => set({ backImage: null })}
        />
      ) : (
        <CheckField
          label="There is none, and that is accepted: a failure may be final"
          className="mt-2"
          checked={reflash.isBackGivenUp}
          onChange={(event) => set({ isBackGivenUp: event.target.checked })}
        />
      )}
    </Panel>
  );
}

/** The same file dropped again keeps what was written down of it. */
const keepSaid = (image: ImageFile, before: ImageFile | null): ImageFile =>
  before && before.sha256 === image.sha256
    ? {
        ...image,
        published: before.published,
        version: before.version,
        hardwareRev: before.hardwareRev,
        marks: before.marks,
      }
    : image;

interface ImageFactsProps {
  readonly image: ImageFile;
  readonly onChange: (image: ImageFile) => void;
  readonly onGone: () => void;
  /** The image that the camera came with is for it: nobody asks for which board. */
  readonly hasMarks: boolean;
}

function ImageFacts({ image, onChange, onGone, hasMarks }: ImageFactsProps) {
  const verdict = compareHash(image.sha256, image.published);
  const { text, look } = HASH_WORDS[verdict];
  return (
    <>
      <dl className="mt-3 grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3 gap-y-1">
        <dt className="text-soft">file</dt>
        <dd className="min-w-0 font-mono break-all">
          {image.fileName}
          {image.archive && <span className="text-soft"> in {image.archive}</span>}
        </dd>
        <dd>
          <Button kind="quiet" className="text-small" aria-label={`Remove ${image.fileName}`} onClick={onGone}>
            Remove it
          </Button>
        </dd>
        <dt className="text-soft">size</dt>
        <dd className="col-span-2 font-mono">{sayCount(image.bytes)} bytes</dd>
        <dt className="text-soft">SHA-256</dt>
        <dd className="min-w-0 font-mono text-small break-all">{image.sha256}</dd>
        <dd>
          <CopyButton text={() => image.sha256} label={`Copy the SHA-256 of ${image.fileName}`} />
        </dd>
      </dl>
      <div className="mt-2 grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-4">
        <span className="col-span-2 md:col-span-3">
          <KeptText
            label="SHA-256 as published"
            maxLength={TEXT_LIMITS.refValue}
            value={image.published}
            onKeep={(published) => onChange({ ...image, published })}
          />
        </span>
        <KeptText
          label="Version"
          maxLength={TEXT_LIMITS.label}
          value={image.version}
          onKeep={(version) => onChange({ ...image, version })}
        />
        <p className={`col-span-full text-small ${look}`}>{digestProblem(image.published) ?? text}</p>
      </div>
      {hasMarks && (
        <fieldset className="mt-2">
          <legend className="text-small">It was published for</legend>
          <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-5">
            <KeptText
              label="hardware revision"
              maxLength={TEXT_LIMITS.label}
              value={image.hardwareRev}
              onKeep={(hardwareRev) => onChange({ ...image, hardwareRev })}
            />
            {MARKS.map((mark) => (
              <KeptText
                key={mark}
                label={MARK_WORDS[mark]}
                maxLength={TEXT_LIMITS.label}
                value={image.marks[mark]}
                onKeep={(of) => onChange({ ...image, marks: { ...image.marks, [mark]: of } })}
              />
            ))}
          </div>
        </fieldset>
      )}
    </>
  );
}
