import { readFile } from 'node:fs/promises';
import { connect } from 'node:net';
import WebSocket from 'ws';
import { LIVE_PROTOCOL } from '../../src/contract/app-header.ts';
import { fakePackets } from '../support/fake-media.ts';
import { ANSWER_FAULTS, CONNECTION_FAULTS, STREAM_FAULTS } from '../support/faults.ts';
import { type Behaviour, startFaultyCamera } from '../support/faulty-camera.ts';
import { type RunningServer, upgrade } from '../support/running-server.ts';
import { healthy, SDP_H264 } from '../support/scripted-server.ts';
import { mutated, type Random } from './random.ts';

/** Something that does not hold. */
export class Found extends Error {
  override readonly name = 'Found';
}

/** The server may keep a few probes and views, and no more, however long it is attacked. */
const MOST_RSS_MB = 420;

export async function rssMb({ process: { pid } }: RunningServer): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8').catch(() => '');
  return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
}

/** It answers, it is not larger than it may be, and nothing got past its last guard. */
export async function stands(server: RunningServer, after: string): Promise<void> {
  if (server.process.exitCode !== null) throw new Found(`${after}: the server ended.\n${server.said().slice(-4000)}`);
  const signal = AbortSignal.timeout(5000);
  const answer = await fetch(`http://127.0.0.1:${server.port}/api/health`, { signal }).catch(() => null);
  if (answer?.status !== 200) throw new Found(`${after}: it does not answer any more.\n${server.said().slice(-4000)}`);
  if (/^\s*(?:\w*Error|AssertionError)\b/m.test(server.said()))
    throw new Found(`${after}: a fault of our own.\n${server.said().slice(-4000)}`);
  const rss = await rssMb(server);
  if (rss > MOST_RSS_MB) throw new Found(`${after}: it grew to ${rss.toFixed(0)} MB.`);
}

function send(port: number, bytes: Buffer, random: Random): Promise<void> {
  return new Promise((resolve) => {
    const socket = connect({ port, host: '127.0.0.1', allowHalfOpen: random.once(2) });
    const end = (): void => {
      clearTimeout(timer);
      socket.destroy();
      resolve();
    };
    const timer = setTimeout(() => {
      if (random.once(2)) socket.resetAndDestroy();
      end();
    }, random.below(120));
    socket.on('error', end);
    socket.on('close', end);
    socket.on('data', () => {});
    socket.on('connect', () => {
      const cut = random.below(bytes.length + 1);
      socket.write(bytes.subarray(0, cut));
      setImmediate(() => {
        if (!socket.destroyed) socket.write(bytes.subarray(cut));
        if (random.once(3)) socket.end();
      });
    });
  });
}

/** Requests and upgrades, changed in a few bytes, cut off, reset, left half open. */
export async function attackRequests(server: RunningServer, random: Random): Promise<void> {
  const host = `Host: 127.0.0.1:${server.port}`;
  const body = JSON.stringify({
    url: 'rtsp://127.0.0.1:1/live?user=a&pwd=b',
    user: 'viewer',
    secret: 'x',
    seconds: 0.5,
    timeoutMs: 200,
    media: true,
    transport: 'auto',
  });
  const seeds = [
    `POST /api/probe HTTP/1.1\r\n${host}\r\nx-clear-tap: 1\r\nContent-Type: application/json\r\nContent-Length: ${body.length}\r\n\r\n${body}`,
    `POST /api/probe HTTP/1.1\r\n${host}\r\nx-clear-tap: 1\r\nTransfer-Encoding: chunked\r\n\r\n5\r\nhello\r\n0\r\n\r\n`,
    `GET /assets/../../package.json HTTP/1.1\r\n${host}\r\nConnection: close\r\n\r\n`,
    `GET /site/alder-mill HTTP/1.1\r\n${host}\r\nAccept-Encoding: gzip\r\n\r\n`,
    `OPTIONS /api/info HTTP/1.1\r\n${host}\r\nOrigin: https://evil.example\r\n\r\n`,
    upgrade('//', server.port),
    upgrade('/api/live', server.port, [`Sec-WebSocket-Protocol: ${LIVE_PROTOCOL}`]),
    upgrade('/api/live', server.port, ['Origin: https://evil.example']),
  ];
  for (let batch = 0; batch < 20; batch++)
    await Promise.all(Array.from({ length: 40 }, () => send(server.port, mutated(random.pick(seeds), random), random)));
  await stands(server, 'mutated requests');
}

/** A camera whose answers, description and packets are changed in a few bytes. */
function hostileCamera(random: Random): Behaviour {
  const faults = [...CONNECTION_FAULTS, ...ANSWER_FAULTS, ...STREAM_FAULTS];
  if (random.once(4)) return random.pick(faults);
  const packets = fakePackets({ fps: 15, groupFrames: 4, frames: 20, keyBytes: 4000, betweenBytes: 900 }).map(
    ({ bytes, frame }) => {
      if (!random.once(3)) return { bytes, frame };
      const broken = Uint8Array.from(bytes.subarray(0, random.once(5) ? random.below(bytes.length) : bytes.length));
      for (let flips = random.below(6); flips > 0 && broken.length > 0; flips--)
        broken[random.below(Math.min(broken.length, 40))] = random.below(256);
      return { bytes: broken, frame };
    },
  );
  return {
    packets,
    script: (request, count) => {
      if (random.once(3)) {
        const body = random.once(2) ? mutated(SDP_H264, random).toString('latin1') : SDP_H264;
        const cseq = request.headers.find(({ name }) => name === 'CSeq')?.value ?? '0';
        const heads = [
          `RTSP/1.0 200 OK\r\nCSeq: ${cseq}\r\nContent-Type: application/sdp\r\nContent-Length: ${Buffer.byteLength(body)}\r\n\r\n${body}`,
          `RTSP/1.0 200 OK\r\nCSeq: ${cseq}\r\nTransport: RTP/AVP;unicast;client_port=5000-5001;server_port=6000-6001\r\nSession: a;timeout=1\r\n\r\n`,
          `RTSP/1.0 401 Unauthorized\r\nCSeq: ${cseq}\r\nWWW-Authenticate: Digest realm="x", nonce="n", qop="auth"\r\n\r\n`,
          `RTSP/1.0 302 Moved\r\nCSeq: ${cseq}\r\nLocation: ${request.uri}/x?password=y\r\n\r\n`,
        ];
        return { status: 200, raw: mutated(random.pick(heads), random).toString('latin1') };
      }
      return healthy(request, count);
    },
  };
}

/** Probes and views of hostile cameras: each ends in its time, with a report or a reason. */
export async function attackByCameras(server: RunningServer, random: Random): Promise<void> {
  const cameras = await Promise.all(Array.from({ length: 12 }, () => startFaultyCamera(hostileCamera(random))));
  const secret = 'Heron&Otter/9';
  const own = `op-${random.below(1e9)}`; // refused logins of an account are remembered for ten minutes
  const probe = async (url: string): Promise<void> => {
    const request = {
      url: random.once(3) ? `${url}?user=${own}&pwd=${encodeURIComponent(secret)}` : url,
      user: random.once(3) ? null : own,
      secret: random.once(3) ? null : secret,
      seconds: 0.5,
      timeoutMs: 300,
      media: true,
      transport: random.pick(['tcp', 'udp', 'auto']),
    };
    const answer = await fetch(`http://127.0.0.1:${server.port}/api/probe`, {
      method: 'POST',
      headers: { 'x-clear-tap': '1', 'content-type': 'application/json' },
      body: JSON.stringify(request),
      signal: AbortSignal.timeout(15_000),
    });
    const text = await answer.text();
    const last = text.trim().split('\n').at(-1) ?? '';
    if (JSON.parse(last).kind !== 'report') throw new Found(`a probe without a report: ${last.slice(0, 400)}`);
    if (text.includes('Heron')) throw new Found(`a secret in a probe's answer: ${text.slice(0, 2000)}`);
  };
  const view = (url: string): Promise<void> =>
    new Promise((resolve) => {
      const socket = new WebSocket(`ws://127.0.0.1:${server.port}/api/live`, [LIVE_PROTOCOL]);
      socket.on('open', () => socket.send(JSON.stringify({ url, user: own, secret })));
      socket.on('error', () => resolve());
      socket.on('close', () => resolve());
      setTimeout(() => (random.once(2) ? socket.terminate() : socket.close()), 200 + random.below(1500));
    });
  await Promise.all(cameras.flatMap(({ url }) => [probe(url), view(url)]));
  await Promise.all(cameras.map((camera) => camera.close()));
  await stands(server, 'hostile cameras');
}
