import { array, boolean, type InferType, number, object, string } from 'yup';
import { TEXT_LIMITS } from '../core/base/limits.ts';
import { PORT_RANGE } from '../core/net/port-range.ts';
import type { ProbeReport, ProbeStep } from '../core/probe/probe-types.ts';
import { MOST_SAMPLE_S } from '../core/probe/sample-lengths.ts';
import type { ProbeStepName, TapeEntry } from '../core/rtsp/exchange-types.ts';
import { MOST_SESSIONS, type SessionsEvent } from '../core/sessions/sessions-types.ts';
import { accountFields, leaveFields } from './login-fields.ts';

/** A URL of a site with its account written into it; more is none of ours. */
const MAX_URL_CHARS = TEXT_LIMITS.evidence;

const streamTarget = {
  url: string().strict().required().max(MAX_URL_CHARS),
  // a line end in it is said in words, by whoever reads the URL
  user: string().strict().nullable().defined().max(TEXT_LIMITS.user),
  secret: accountFields.secret,
  ...leaveFields,
  /** An http:// URL means RTSP inside HTTP. */
  tunnel: boolean().strict(),
};

/** More are not tried. */
export const MOST_HINTED_PATHS = 12;

/** What a probe is asked for. */
export const probeRequestSchema = object({
  ...streamTarget,
  seconds: number().strict().min(0.5).max(MOST_SAMPLE_S).required(),
  timeoutMs: number().strict().min(200).max(30_000).required(),
  media: boolean().strict().required(),
  transport: string()
    .strict()
    .oneOf(['tcp', 'udp', 'auto'] as const)
    .required(),
  /** Where it fails: find out why by experiment. Logins are refused at most twice in all. */
  diagnose: boolean().strict(),
  /** Paths that its model is known for, the likeliest first. */
  paths: array(string().strict().required().max(TEXT_LIMITS.path)).max(MOST_HINTED_PATHS),
  onvifPort: number().strict().integer().min(PORT_RANGE.min).max(PORT_RANGE.max).nullable(),
  /** By which its sample can be ended before its time. */
  probeId: string().strict().min(1).max(TEXT_LIMITS.subject),
})
  .noUnknown()
  .strict()
  .required();
export type ProbeRequest = InferType<typeof probeRequestSchema>;

/** POST /api/enough: the sample of a probe that is under way is long enough. */
export const enoughRequestSchema = object({ probeId: string().strict().required().max(TEXT_LIMITS.subject) })
  .noUnknown()
  .strict()
  .required();
export type EnoughRequest = InferType<typeof enoughRequestSchema>;

/** Lines of the answer to POST /api/probe: one JSON object each, as they happen. */
export type ProbeEvent =
  | { readonly kind: 'stepBegan'; readonly name: ProbeStepName; readonly startMs: number }
  | { readonly kind: 'step'; readonly step: ProbeStep }
  | { readonly kind: 'tape'; readonly entry: TapeEntry }
  /** An experiment began, after the probe itself had failed. */
  | { readonly kind: 'trial'; readonly trial: TrialKind }
  | { readonly kind: 'report'; readonly report: ProbeReport };
export type TrialKind = 'calls' | 'probe' | 'neighbour' | 'onvif';

/** POST /api/sessions: counts how many sessions a camera plays at once. */
export const sessionsRequestSchema = object({
  ...streamTarget,
  most: number().strict().integer().min(1).max(MOST_SESSIONS).required(),
})
  .noUnknown()
  .strict()
  .required();
export type SessionsRequest = InferType<typeof sessionsRequestSchema>;

/** Lines of its answer; a URL that is none is told as a refusal of the first. */
export type SessionsLine = SessionsEvent;

/** First message of a live WebSocket, from the page. */
export const liveRequestSchema = object(streamTarget).noUnknown().strict().required();
export type LiveRequest = InferType<typeof liveRequestSchema>;

/** `codecString` of pictures that come as JPEG files, one by one; every other string is a decoder's, `null` none at all. */
export const JPEG_PICTURES = 'jpeg';

/** Text messages of a live WebSocket, to the page; pictures are binary, see live-frame.ts. */
export type LiveMessage =
  | { readonly kind: 'format'; readonly codec: string; readonly codecString: string | null }
  /** Sound that comes beside the picture; `format` is `null` where no page can play it. */
  | { readonly kind: 'sound'; readonly codec: string; readonly format: PlayedSound | null }
  | { readonly kind: 'ended'; readonly message: string };

/** What a page needs to play sound. */
export interface PlayedSound {
  readonly codec: 'AAC' | 'PCMU' | 'PCMA' | 'OPUS';
  readonly codecString: string;
  readonly rateHz: number;
  readonly channels: number;
  /** AudioSpecificConfig of AAC, in base64; empty for others. */
  readonly config: string;
}
