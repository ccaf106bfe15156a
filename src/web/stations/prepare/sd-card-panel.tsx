import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { sayCount } from '../../../core/base/say.ts';
import { bytes } from '../../../core/base/units.ts';
import type { PlannedCard } from '../../../core/document/chapters/cameras/reflash.ts';
import { REFLASH_RANGES } from '../../../core/document/chapters/cameras/reflash-ranges.ts';
import { cameraSubject } from '../../../core/document/subject.ts';
import { bestKnown } from '../../../core/evidence/best-known.ts';
import {
  ALIGN_MIB,
  cardSize,
  FILE_SYSTEMS,
  fileSystemFor,
  MIB,
  partitionOf,
  partitionWithin,
} from '../../../core/firmware/memory-card.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { KeptText } from '../../ui/kept-text.tsx';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { sayWhen } from '../../ui/say-when.ts';
import { SelectField } from '../../ui/text-field.tsx';
import { useSiteView } from '../use-site-view.ts';
import type { BenchProps } from './bench-props.ts';
import { DropFile } from './drop-file.tsx';
import { NameCompare } from './name-compare.tsx';
import { CardRuler } from './sd-card-ruler.tsx';

/** Sizes that cards are sold in, GB. */
const SOLD_GB = [4, 8, 16, 32, 64, 128, 256];

/** The memory card: its size, its partition to the sector, its file system, the file on it, and that read back. */
export function CardPanel({ camera, reflash, set }: BenchProps) {
  const dispatch = useAppDispatch();
  const view = useSiteView();
  const guide = view.modelOf(camera)?.reflash ?? null;
  const { card, image } = reflash;
  const put = (change: Partial<PlannedCard>): void => {
    if (card) set({ card: { ...card, ...change } });
  };
  const take = (cardBytes: number): void => {
    const planned = partitionWithin(bytes(cardBytes), guide?.limitGiB ?? null);
    const { sizeMiB } = planned;
    const fileSystem = guide?.fileSystem ?? fileSystemFor(bytes(cardBytes), planned);
    set({
      card: {
        bytes: cardBytes,
        partitionMiB: Math.max(1, sizeMiB),
        fileSystem,
        fileName: card?.fileName ?? image?.fileName ?? guide?.imageName ?? '',
      },
    });
  };
  const partition = card && partitionOf(bytes(card.bytes), ALIGN_MIB, card.partitionMiB);
  const size = card && cardSize(bytes(card.bytes));
  const known = (quantity: string) => bestKnown(view.index, cameraSubject(camera.id), quantity);
  const readBack = known('card.sha256');
  return (
    <Panel title="SD card" aside="a large one works, with a small partition">
      <div className="flex flex-wrap items-end gap-2">
        <span className="pb-1 text-small text-soft">Printed size, GB</span>
        {SOLD_GB.map((gb) => (
          <Button
            key={gb}
            className="text-small"
            aria-pressed={card?.bytes === gb * 1e9}
            aria-label={`An SD card of ${gb} GB`}
            kind={card?.bytes === gb * 1e9 ? 'main' : 'plain'}
            onClick={() => take(gb * 1e9)}
          >
            {gb}
          </Button>
        ))}
        <NumberField
          key={card?.bytes}
          label="or its bytes, as a computer shows them"
          value={card?.bytes ?? null}
          range={REFLASH_RANGES.cardBytes}
          isOptional
          className="w-60"
          onKeep={(value) => (value === null ? set({ card: null }) : take(value))}
        />
      </div>
      {card && partition && size && (
        <>
          <div className="mt-3">
            <CardRuler
              cardBytes={card.bytes}
              partition={partition}
              limitGiB={guide?.limitGiB ?? null}
              imageBytes={image?.bytes ?? null}
            />
          </div>
          <div className="mt-1 grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-3">
            <NumberField
              label="Partition, MiB"
              value={card.partitionMiB}
              range={REFLASH_RANGES.partitionMiB}
              isOptional
              hint="empty: the rest of the SD card"
              onKeep={(partitionMiB) => put({ partitionMiB })}
            />
            <SelectField
              label="File system"
              value={card.fileSystem}
              onChange={(value) => put({ fileSystem: FILE_SYSTEMS.find((one) => one === value) ?? card.fileSystem })}
              options={FILE_SYSTEMS.map((value) => ({ value, label: value }))}
            />
            <KeptText
              label="Name of the file on it"
              maxLength={TEXT_LIMITS.fileName}
              value={card.fileName}
              onKeep={(fileName) => put({ fileName })}
            />
          </div>
          <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-small">
            <dt className="text-soft">card</dt>
            <dd className="font-mono">
              {sayCount(size.sectors)} sectors of 512 bytes · {size.gib.toFixed(2)} GiB · {size.family}, sold as{' '}
              {size.usualFileSystem}
            </dd>
            <dt className="text-soft">partition</dt>
            <dd className="font-mono">
              {partition.fits
                ? `sectors ${sayCount(partition.startSector)} to ${sayCount(partition.endSector)} · ${sayCount(partition.sectors)} in all · ${sayCount(partition.sizeMiB)} MiB · ${sayCount(partition.unusedMiB ?? 0)} MiB after it stay free`
                : 'does not fit this SD card'}
            </dd>
            <dt className="text-soft">table</dt>
            <dd className="font-mono">MBR, one primary partition, type 0x0C, first</dd>
          </dl>
          {guide && guide.imageName !== '' && (
            <div className="mt-3">
              <NameCompare required={guide.imageName} found={card.fileName} />
            </div>
          )}
          <ol className="mt-3 list-decimal pl-5 text-small text-soft">
            <li>Erase the SD card, make the partition, format it. Everything on it is lost.</li>
            <li>Copy the file, name it as above, eject the SD card properly.</li>
            <li>Insert it again, and drop the file back from the SD card: the copy is compared.</li>
          </ol>
          <div className="mt-2">
            <DropFile
              what="the file on the SD card"
              label="File read back from the SD card"
              onTaken={(back) =>
                void dispatch(
                  commandIssued({
                    kind: 'recordReadBack',
                    cameraId: camera.id,
                    fileName: back.fileName,
                    sha256: back.sha256,
                    bytes: back.bytes,
                  }),
                )
              }
            />
            {readBack && (
              <p className="mt-1 flex flex-wrap items-center gap-2 text-small">
                <span className="font-mono">{String(known('card.fileName')?.value ?? '')}</span>
                {readBack.value === image?.sha256 ? (
                  <span className="text-verdigris">identical to the firmware file</span>
                ) : (
                  <span className="text-brick">differs from the firmware file</span>
                )}
                <KnownHowMark how="measured" detail={sayWhen(readBack.takenAt ?? '')} />
              </p>
            )}
          </div>
          {partition.fits && image && image.bytes > partition.sizeMiB * MIB && (
            <p className="mt-1 text-small text-brick">The firmware file is larger than the partition.</p>
          )}
        </>
      )}
    </Panel>
  );
}
