import { merged } from '../../base/merged.ts';
import { bytes } from '../../base/units.ts';
import type { Verdict } from '../../base/verdict.ts';
import type { Camera } from '../../document/chapters/cameras/camera.ts';
import { type Reflash, UNSAID_REFLASH } from '../../document/chapters/cameras/reflash.ts';
import type { Model } from '../../document/chapters/models/model-card.ts';
import { cameraSubject } from '../../document/subject.ts';
import { bestKnown } from '../../evidence/best-known.ts';
import { lastFact } from '../../evidence/evidence-index.ts';
import type { Facts } from '../../findings/rule.ts';
import { decide } from '../../firmware/decision.ts';
import { LED_ROLE_WORDS, LED_ROLES, MARK_WORDS, type ReflashGuide } from '../../firmware/guide.ts';
import { compareNames } from '../../firmware/image-name.ts';
import { looksSame, sayLed } from '../../firmware/led.ts';
import { MARKS } from '../../firmware/marks.ts';
import { ALIGN_MIB, fitsOn, partitionOf, roomIn } from '../../firmware/memory-card.ts';
import { WRITES } from '../../firmware/options.ts';
import { compareHash } from '../../firmware/published-hash.ts';
import type { SiteView } from '../../site/site-view.ts';
import type { FirmwareFacts } from './prepare-facts.ts';
import { runOf } from './reflash-run.ts';
import type { Setting } from './settings.ts';

/** A camera whose card says that it gives no stream as it is, and that nobody has seen give one. */
function needsFirmware(model: Model | undefined, settings: readonly Setting[]): boolean {
  const isSeen = settings.some(({ id, seen }) => id === 'stream-on' && seen === true);
  return !isSeen && (model?.localStream === 'after-reflash' || model?.localStream === 'account-only');
}

export const hasGuide = (model: Model | undefined): boolean =>
  model?.reflash !== undefined && model.reflash !== null && model.reflash.imageName !== '';

/** What the decision is made from. */
export function decisionOf(camera: Camera, view: SiteView, picture: Verdict) {
  const model = view.modelOf(camera);
  const reflash = camera.reflash ?? UNSAID_REFLASH;
  return decide({
    givesStream:
      model?.localStream === undefined || model.localStream === null
        ? null
        : model.localStream !== 'after-reflash' && model.localStream !== 'account-only',
    picture,
    lost: model?.lostWithoutAccount?.length ?? null,
    hasSideBranch: model?.hasSideBranch ?? null,
    wayBack: reflash.backImage ? 'stored' : reflash.isBackGivenUp ? 'accepted' : null,
    hasRescue: reflash.hasRescue,
    marksKnown: MARKS.every((mark) => reflash.marks[mark].trim() !== ''),
    isOwn: reflash.isOwn,
    isOnlyOne: reflash.isOnlyOne,
    hasMainsInside: reflash.hasMainsInside,
  });
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const orUnsaid = (text: string): string | undefined => (text.trim() === '' ? undefined : text.trim());

function imageFacts({ marks, image, backImage, label }: Reflash): Facts<FirmwareFacts> {
  if (!image) return { hasImage: false };
  const known = MARKS.filter((mark) => marks[mark].trim() !== '' && image.marks[mark].trim() !== '');
  return {
    hasImage: true,
    marksApart: known
      .filter((mark) => !same(marks[mark], image.marks[mark]))
      .map((mark) => `${MARK_WORDS[mark]}: ${marks[mark]} here, ${image.marks[mark]} for the firmware file`),
    marksUnknown: MARKS.filter((mark) => !known.includes(mark)).map((mark) => MARK_WORDS[mark]),
    labelVersion: orUnsaid(label.version),
    imageRev: orUnsaid(image.hardwareRev),
    imageVersion: orUnsaid(image.version),
    imageHash: compareHash(image.sha256, image.published),
    imageBytes: image.bytes,
    backHash: backImage ? compareHash(backImage.sha256, backImage.published) : undefined,
    isSameImage: backImage?.sha256 === image.sha256,
  };
}

function cardFacts({ card, image }: Reflash, guide: ReflashGuide | null): Facts<FirmwareFacts> {
  if (!card) return { hasCard: false };
  const partition = partitionOf(bytes(card.bytes), ALIGN_MIB, card.partitionMiB);
  return {
    hasCard: true,
    partitionFits: partition.fits,
    partitionMiB: partition.sizeMiB,
    limitGiB: guide?.limitGiB ?? undefined,
    fileSystem: card.fileSystem,
    fileSystemWanted: guide?.fileSystem,
    isFileSystemPossible: roomIn(partition, card.fileSystem) !== null,
    imageFitsCard: image ? fitsOn(image.bytes, partition, card.fileSystem) : undefined,
    nameWanted: guide?.imageName,
    nameOnCard: card.fileName,
    nameVerdict: guide ? compareNames(guide.imageName, card.fileName) : undefined,
  };
}

function readBackOf(camera: Camera, view: SiteView, guide: ReflashGuide | null): FirmwareFacts['readBack'] | undefined {
  const { image, card } = camera.reflash ?? UNSAID_REFLASH;
  const subject = cameraSubject(camera.id);
  const fileName = lastFact(view.index, subject, 'card.fileName')?.value;
  const sha256 = lastFact(view.index, subject, 'card.sha256')?.value;
  if (!image || !card || typeof fileName !== 'string') return undefined;
  return {
    isSame: sha256 === image.sha256,
    nameVerdict: compareNames(guide?.imageName ?? card.fileName, fileName),
    fileName,
  };
}

export function firmwareFacts(camera: Camera, view: SiteView, settings: readonly Setting[]): Facts<FirmwareFacts> {
  const model = view.modelOf(camera);
  const needs = needsFirmware(model, settings);
  const { reflash } = camera;
  const told = runOf(view.index, camera);
  if (!reflash && !needs && !told) return { needsFirmware: false };
  const decided = reflash ?? UNSAID_REFLASH;
  const writes = decided.decision !== null && WRITES.has(decided.decision);
  // vetoes hang on no score
  const { scored } = decisionOf(camera, view, 'unknown');
  const chosen = scored.find(({ option }) => option === decided.decision);
  const guide = model?.reflash ?? null;
  const own = {
    needsFirmware: needs,
    decision: decided.decision,
    writes,
    vetoes: chosen?.vetoes ?? [],
    openVetoes: chosen?.open ?? [],
    hasBack: decided.backImage !== null,
    isBackGivenUp: decided.isBackGivenUp,
    hasGuide: hasGuide(model),
    labelRev: orUnsaid(decided.label.hardwareRev),
    cardRev: orUnsaid(model?.hardwareRev ?? ''),
    readBack: readBackOf(camera, view, guide),
    isRehearsed: bestKnown(view.index, cameraSubject(camera.id), 'reflash.rehearsed.onward') !== null,
    phase: told?.run.phase,
    hasWritten: told?.run.hasWritten,
    sameLeds: guide ? alikeLeds(guide) : [],
  };
  return merged(own, imageFacts(decided), cardFacts(decided, guide));
}

function alikeLeds({ lamps }: ReflashGuide): readonly string[] {
  return LED_ROLES.flatMap((role, at) =>
    LED_ROLES.slice(at + 1)
      .filter((other) => looksSame(lamps[role], lamps[other]))
      .map((other) => `“${LED_ROLE_WORDS[role]}” and “${LED_ROLE_WORDS[other]}” are both ${sayLed(lamps[role])}`),
  );
}
