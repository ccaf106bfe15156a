import { bytesOf, textOf } from '../../src/core/base/bytes.ts';
import { headerOf } from '../../src/core/http/headers.ts';
import { RtspMessageParser } from '../../src/core/rtsp/message-parser.ts';
import { type RtspRequest, writeResponse } from '../../src/core/rtsp/rtsp-message.ts';

/** One answer of a script. Leave `headers` and `body` out where they do not matter. */
export interface Answer {
  readonly status: number;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string;
  /** Sent instead of an RTSP answer. */
  readonly raw?: string;
}

export type Script = (request: RtspRequest, count: number) => Answer;

/** A description with one H.264 track, as a camera gives it. */
export const SDP_H264 = [
  'v=0',
  'o=- 1 1 IN IP4 10.77.4.21',
  's=Sluice rail',
  't=0 0',
  'a=control:*',
  'm=video 0 RTP/AVP 96',
  'a=rtpmap:96 H264/90000',
  'a=fmtp:96 packetization-mode=1;profile-level-id=42C016;sprop-parameter-sets=Z0LAFtoCgL/lwEQAAAMABAAAAwB4PFi6gA==,aM4PyA==',
  'a=framerate:15',
  'a=control:track1',
  '',
].join('\r\n');

export const sdp = (body = SDP_H264, more: Readonly<Record<string, string>> = {}): Answer => ({
  status: 200,
  headers: { 'Content-Type': 'application/sdp', ...more },
  body,
});
export const setUp = (session = 'abc;timeout=60'): Answer => ({
  status: 200,
  headers: { Transport: 'RTP/AVP/TCP;unicast;interleaved=0-1', Session: session },
});
export const OK: Answer = { status: 200 };

/** The answers of a healthy camera without a login. */
export const healthy: Script = ({ method }) => {
  if (method === 'DESCRIBE') return sdp();
  if (method === 'SETUP') return setUp();
  return OK;
};

/** Turns requests into answers by a script; the far end of a client that is driven without a socket. */
export class ScriptedServer {
  readonly requests: RtspRequest[] = [];
  readonly #parser = new RtspMessageParser();
  constructor(private readonly script: Script) {}

  answer(bytes: Uint8Array): Uint8Array[] {
    const answers: Uint8Array[] = [];
    for (const event of this.#parser.push(bytes)) {
      if (event.kind !== 'request') continue;
      this.requests.push(event.request);
      const { status, headers = {}, body = '', raw } = this.script(event.request, this.requests.length);
      if (raw !== undefined) {
        answers.push(bytesOf(raw));
        continue;
      }
      const list = [{ name: 'CSeq', value: headerOf(event.request, 'CSeq') ?? '' }];
      for (const [name, value] of Object.entries(headers)) list.push({ name, value });
      if (body !== '') list.push({ name: 'Content-Length', value: String(bytesOf(body).length) });
      answers.push(bytesOf(writeResponse(status, 'whatever', list, body)));
    }
    return answers;
  }

  get methods(): string[] {
    return this.requests.map(({ method }) => method);
  }
  /** Everything the client sent, as text. */
  get sent(): string {
    return this.requests.map(({ head, body }) => head + textOf(body)).join('\n\n');
  }
}
