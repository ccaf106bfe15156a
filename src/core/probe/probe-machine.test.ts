import { expect, test } from '@jest/globals';
import { fakePackets, interleaved, senderReport } from '../../../tests/support/fake-media.ts';
import { type Answer, healthy, type Script, ScriptedServer, sdp } from '../../../tests/support/scripted-server.ts';
import { NO_GATE } from '../auth/proof-gate.ts';
import { concatBytes } from '../base/bytes.ts';
import { parseStreamUrl } from '../net/stream-url-parser.ts';
import type { TransportChoice } from '../rtsp/client-types.ts';
import { ProbeMachine } from './probe-machine.ts';
import type { ProbeEffect, ProbeInput, ProbeTimer } from './probe-options.ts';
import type { ProbeReport } from './probe-types.ts';

const STARTED_AT = Date.UTC(2026, 10, 25, 9, 0, 0);

/** Drives a machine on a made-up clock: requests are answered by a script, timers fire when their time has come. */
class Stage {
  readonly effects: ProbeEffect[] = [];
  readonly server: ScriptedServer;
  readonly machine: ProbeMachine;
  readonly #timers = new Map<ProbeTimer, number>();
  now = 0;

  constructor(
    script: Script = healthy,
    given: { media?: boolean; sampleMs?: number; transport?: TransportChoice } = {},
  ) {
    const parsed = parseStreamUrl('rtsp://10.77.4.21:8554/live/main?x=1');
    if (!parsed.ok) throw new Error('url');
    this.server = new ScriptedServer(script);
    this.machine = new ProbeMachine({
      gate: NO_GATE,
      knownFingerprint: null,
      url: parsed.value.url,
      credentials: null,
      transport: given.transport ?? 'auto',
      ownSsrc: 0xc0ffee,
      sampleMs: given.sampleMs ?? 3000,
      timeoutMs: 5000,
      media: given.media ?? true,
      userAgent: 'test',
      cnonce: () => 'c0ffee',
      startedAtUnixMs: STARTED_AT,
    });
    this.#take(this.machine.begin(0));
  }

  put(input: ProbeInput): void {
    this.now = Math.max(this.now, input.atMs);
    this.#take(this.machine.handle(input));
  }
  /** Connects and lets the exchange run; each answer takes 2 ms. */
  connect(): this {
    this.put({ kind: 'resolved', atMs: 1, note: null });
    this.put({ kind: 'connected', atMs: 3 });
    return this;
  }
  bytes(chunk: Uint8Array, atMs: number): void {
    this.fireUntil(atMs);
    this.put({ kind: 'bytes', chunk, atMs });
  }
  fireUntil(atMs: number): void {
    for (const [timer, due] of [...this.#timers].sort((a, b) => a[1] - b[1])) {
      if (due > atMs || this.#timers.get(timer) !== due) continue;
      this.#timers.delete(timer);
      this.put({ kind: 'timer', timer, atMs: due });
    }
    this.now = Math.max(this.now, atMs);
  }
  get report(): ProbeReport {
    const found = this.effects.find((effect) => effect.kind === 'report');
    if (found?.kind !== 'report') throw new Error('no report yet');
    return found.report;
  }
  get armed(): ProbeTimer[] {
    return [...this.#timers.keys()];
  }
  #take(effects: readonly ProbeEffect[]): void {
    const answers: Uint8Array[] = [];
    for (const effect of effects) {
      this.effects.push(effect);
      if (effect.kind === 'arm') this.#timers.set(effect.timer, this.now + effect.afterMs);
      if (effect.kind === 'disarm') this.#timers.delete(effect.timer);
      if (effect.kind === 'send') answers.push(...this.server.answer(effect.bytes));
    }
    // Only now: an answer never comes before the effects of its own request are carried out.
    for (const answer of answers) this.put({ kind: 'bytes', chunk: answer, atMs: this.now + 2 });
  }
}

const stream = fakePackets({ fps: 15, groupFrames: 30, frames: 76 });
function play(
  stage: Stage,
  { from = 100, until = Number.POSITIVE_INFINITY, keep = (_: number): boolean => true } = {},
): void {
  for (const [index, { bytes, frame }] of stream.entries()) {
    const atMs = from + (frame * 1000) / 15;
    if (atMs <= until && keep(index)) stage.bytes(interleaved(0, bytes), atMs);
  }
}

test('a healthy camera: every step in order, measured, torn down, verdict ok', () => {
  const stage = new Stage().connect();
  stage.bytes(interleaved(1, senderReport(STARTED_AT + 50, 0)), 90);
  play(stage);
  stage.fireUntil(20_000);
  const { report } = stage;
  expect(report.steps.map(({ name }) => name)).toEqual([
    'resolve',
    'connect',
    'options',
    'describe',
    'setup',
    'play',
    'first-packet',
    'first-keyframe',
    'sample',
    'teardown',
  ]);
  expect(report).toMatchObject({
    verdict: 'warn',
    cause: null,
    clockErrorMs: -40,
    sessionTimeoutS: 60,
    auth: { scheme: 'none' },
  });
  expect(report.target).toEqual({
    url: 'rtsp://10.77.4.21:8554/live/main?x=1',
    host: '10.77.4.21',
    port: 8554,
    path: '/live/main?x=1',
  });
  expect(report.media[0]).toMatchObject({
    codec: 'H264',
    declared: { width: 640, height: 360, fps: 15, profile: 'Constrained Baseline' },
    measured: { fps: 15, lost: 0, keyframeIntervalFrames: 30 },
  });
  expect(report.findings.map(({ rule }) => rule)).toEqual(['auth.none']); // no login: that is all there is to say
  expect(stage.server.methods.at(-1)).toBe('TEARDOWN');
  expect(stage.armed).toEqual([]);
});

test('steps begin before they end, so that a screen can show them grow', () => {
  const stage = new Stage().connect();
  const began = stage.effects.flatMap((effect) => (effect.kind === 'stepBegan' ? [effect.name] : []));
  expect(began).toEqual(['resolve', 'connect', 'options', 'describe', 'setup', 'play', 'first-packet']);
});

test('packets that overtake the answer to PLAY count, and the first of them ends the waiting at once', () => {
  const early = concatBytes(stream.slice(0, 2).map(({ bytes }) => interleaved(0, bytes))); // parameter sets, key frame
  const script: Script = (request, count) => {
    return request.method === 'PLAY' ? { status: 200, raw: '' } : healthy(request, count);
  };
  const stage = new Stage(script).connect();
  stage.bytes(early, 50);
  stage.bytes(new TextEncoder().encode('RTSP/1.0 200 OK\r\nCSeq: 4\r\n\r\n'), 60);
  const steps = stage.effects.flatMap((effect) => (effect.kind === 'step' ? [effect.step] : []));
  expect(steps.find(({ name }) => name === 'first-packet')).toMatchObject({ startMs: 60, durationMs: 0, ok: true });
  expect(steps.find(({ name }) => name === 'first-keyframe')).toMatchObject({ ok: true });
});

test('a share lost is a finding with its numbers', () => {
  const stage = new Stage().connect();
  play(stage, { keep: (index) => index % 20 !== 19 });
  stage.fireUntil(20_000);
  expect(stage.report.findings[0]).toMatchObject({ rule: 'rtp.loss', severity: 'stop' });
});

test.each([
  { why: 'no packet at all', until: 0, cause: 'no-packets', note: /no packet came in 5 s/ },
  { why: 'packets that stop in the sample', until: 1200, cause: 'no-packets', note: /stopped/ },
])('fails in time: $why', ({ until, cause, note }) => {
  const stage = new Stage().connect();
  play(stage, { until });
  stage.fireUntil(30_000);
  expect(stage.report).toMatchObject({ verdict: 'fail', cause });
  expect(stage.report.findings[0]?.because).toMatch(note);
  expect(stage.server.methods.at(-1)).toBe('TEARDOWN');
});

test('packets without a key frame fail: no picture can start', () => {
  const stage = new Stage().connect();
  for (const { bytes, frame } of fakePackets({ fps: 15, groupFrames: 1000, frames: 150 }).filter(
    ({ frame }) => frame > 0,
  ))
    stage.bytes(interleaved(0, bytes), 100 + frame * 66);
  stage.fireUntil(30_000);
  expect(stage.report).toMatchObject({ verdict: 'fail', cause: 'no-video' });
  expect(stage.report.media[0]?.measured?.packets).toBeGreaterThan(0);
});

test('a codec that is not known is measured by its packets and said to be unknown', () => {
  const body = 'v=0\r\nm=video 0 RTP/AVP 96\r\na=rtpmap:96 VX9/90000\r\na=control:t\r\n';
  const stage = new Stage((request, count) =>
    request.method === 'DESCRIBE' ? sdp(body) : healthy(request, count),
  ).connect();
  play(stage);
  stage.fireUntil(30_000);
  expect(stage.report).toMatchObject({ cause: 'unsupported-codec', media: [{ codec: 'VX9', measured: { lost: 0 } }] });
});

test('a hang-up in the sample is told as such', () => {
  const stage = new Stage().connect();
  play(stage, { until: 1500 });
  stage.put({ kind: 'closed', atMs: 1510 });
  expect(stage.report).toMatchObject({ verdict: 'fail', cause: 'closed' });
  expect(stage.report.steps.at(-1)).toMatchObject({ name: 'sample', ok: false });
});

test('silence after a request ends at its limit', () => {
  const stage = new Stage((request, count) =>
    request.method === 'DESCRIBE' ? { status: 0, raw: '' } : healthy(request, count),
  ).connect();
  stage.fireUntil(4000);
  expect(() => stage.report).toThrow();
  stage.fireUntil(6000);
  expect(stage.report).toMatchObject({ verdict: 'fail', cause: 'timeout' });
});

test('a TEARDOWN that is not answered does not spoil the verdict', () => {
  const answers: Script = (request, count) =>
    request.method === 'TEARDOWN' ? { status: 0, raw: '' } : healthy(request, count);
  const stage = new Stage(answers).connect();
  play(stage);
  stage.fireUntil(30_000);
  expect(stage.report).toMatchObject({ cause: null });
});

test('a dial that failed is a report with the step it failed in', () => {
  const stage = new Stage();
  stage.put({ kind: 'resolved', atMs: 1, note: null });
  stage.put({ kind: 'dialFailed', atMs: 9, cause: 'refused', note: '10.77.4.21:8554 refused the connection.' });
  expect(stage.report).toMatchObject({
    verdict: 'fail',
    cause: 'refused',
    steps: [
      { name: 'resolve', ok: true },
      { name: 'connect', ok: false },
    ],
  });
});

test('without media: five round trips at most, no PLAY', () => {
  const stage = new Stage(healthy, { media: false }).connect();
  expect(stage.report).toMatchObject({ cause: null });
  expect(stage.server.methods).toEqual(['OPTIONS', 'DESCRIBE', 'SETUP', 'TEARDOWN']);
});

test('cancelling tears down and leaves no timer', () => {
  const stage = new Stage().connect();
  play(stage, { until: 800 });
  stage.put({ kind: 'cancel', atMs: 900 });
  expect(stage.server.methods.at(-1)).toBe('TEARDOWN');
  expect(stage.armed).toEqual([]);
});

test('the wire tape is bounded, however much is said', () => {
  const big: Answer = sdp(`v=0\r\ns=${'x'.repeat(500_000)}\r\n`);
  const stage = new Stage((request, count) =>
    request.method === 'DESCRIBE' ? big : healthy(request, count),
  ).connect();
  const tape = stage.effects.flatMap((effect) => (effect.kind === 'tape' ? [effect.entry.text] : []));
  expect(Math.max(...tape.map(({ length }) => length))).toBeLessThan(10_000);
  expect(tape.some((text) => text.includes('more characters'))).toBe(true);
});
