import type { ProbeReport } from '../probe/probe-types.ts';
import type { Diagnosis } from '../probe/reasons.ts';
import type { ProbeCause } from '../rtsp/exchange-types.ts';
import { whyRefused } from './login-trials.ts';
import { again, type FailedProbe, list, Notebook, SHORT_SAMPLE_S, sayReport, worked } from './notebook.ts';
import { whichPath } from './path-trials.ts';
import { type CallAnswer, callPorts, neighbour, OutOfTime, type Trials } from './trials.ts';

/** Where cameras have RTSP besides the standard port. Source: RFC 2326 §3.2 (554), RFC 7826 §4.2 (322); the others are usual [A]. */
const RTSP_PORTS = [554, 8554, 10_554] as const;
const TLS_PORT = 322;
/** Where a device answers that has RTSP closed. */
const OTHER_PORTS = [80, 443, 8080, 8899] as const;
/** A stream that stopped is waited for as long as before, within this [A]. */
const MOST_SAMPLE_S = 3.5;

const WORDS: Readonly<Record<CallAnswer, string>> = {
  open: 'accepted the connection',
  refused: 'refused it at once',
  silent: 'no response',
};

const sayAnswers = (answers: ReadonlyMap<number, CallAnswer>): string =>
  (['open', 'refused', 'silent'] as const)
    .flatMap((how) => {
      const ports = [...answers].filter(([, answer]) => answer === how).map(([port]) => port);
      return ports.length > 0 ? [`${list(ports)} ${ports.length > 1 ? 'each ' : ''}${WORDS[how]}`] : [];
    })
    .join('; ');

/** It got as far as to talk about the stream: whoever it is speaks RTSP there. */
const spoke = ({ steps }: ProbeReport): boolean =>
  steps.some(({ name, ok, status }) => name !== 'connect' && ok && status !== null);

/** What is tried of each cause; where nothing is, the cause says all that can be said. */
const PLANS: Readonly<Partial<Record<ProbeCause, (of: FailedProbe, notes: Notebook) => Trials<Diagnosis>>>> = {
  unreachable: whyNoCall,
  timeout: (of, notes) =>
    of.report.steps.some(({ name, ok }) => name === 'connect' && ok) ? whySilent(of, notes) : whyNoCall(of, notes),
  refused: whereElse,
  closed: whyHungUp,
  'not-rtsp': whatAnswers,
  // an alert is TLS, and a line that breaks off proves nothing: neither is a reason to speak readable
  'not-tls': isItPlain,
  'auth-failed': whyRefused,
  'not-found': whichPath,
  'no-packets': whichWay,
  'transport-refused': whichWay,
  'server-error': doesItPass,
  'session-lost': doesItPass,
  'protocol-error': doesItPass,
};

/**
 * Tells by experiment why a probe failed: each step is a question put to the device or its network, and what comes back chooses the
 * next. It guesses nothing: where no experiment decides, the reason is not known. Logins are refused at most `MOST_REFUSED_LOGINS`
 * times in all.
 */
export function* diagnose(of: FailedProbe): Trials<Diagnosis> {
  const notes = new Notebook();
  const plan = of.report.cause ? PLANS[of.report.cause] : undefined;
  if (!plan) return notes.open();
  try {
    return yield* plan(of, notes);
  } catch (error) {
    if (!(error instanceof OutOfTime)) throw error;
    notes.note('more experiments', 'out of time');
    return notes.open();
  }
}

const others = (port: number, of: FailedProbe): readonly number[] =>
  [...new Set([...(of.onvifPort === null ? [] : [of.onvifPort]), ...OTHER_PORTS, ...RTSP_PORTS])].filter(
    (one) => one !== port,
  );

/** No call came through: is nobody there, or is the port alone out of reach? */
function* whyNoCall(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const { port } = of.url;
  const ports = others(port, of);
  const answers = yield* callPorts(ports);
  notes.note(`tried ports ${list(ports)} of the same address`, sayAnswers(answers));
  const open = RTSP_PORTS.filter((one) => answers.get(one) === 'open');
  const elsewhere = yield* rtspAmong(open, of, notes);
  if (elsewhere) return elsewhere;
  if ([...answers.values()].some((answer) => answer !== 'silent')) return notes.conclude('port-filtered');
  const { mac, isOnLink } = yield* neighbour();
  if (mac === null && isOnLink !== true) {
    const found = isOnLink === null ? 'it cannot be told' : 'it is in none of them, behind a router';
    notes.note('looked for the address among this computer’s own networks', found);
    return isOnLink === null ? notes.open() : notes.conclude('no-way');
  }
  notes.note(
    'looked for the address in this computer’s neighbour table',
    mac === null ? 'not there' : `a device with the MAC address ${mac} has it`,
  );
  return notes.conclude(mac === null ? 'host-dead' : 'port-filtered');
}

/** Among ports that take calls the first that speaks RTSP. */
function* rtspAmong(ports: readonly number[], of: FailedProbe, notes: Notebook): Trials<Diagnosis | null> {
  for (const port of ports) {
    const report = yield* again(of, { url: { ...of.url, port, scheme: 'rtsp' }, credentials: null });
    const isRtsp = spoke(report);
    notes.note(`spoke RTSP on port ${port}`, isRtsp ? 'it answered' : sayReport(report));
    if (isRtsp) return notes.conclude('other-port', { port, ...(of.url.scheme === 'rtsp' ? {} : { line: 'plain' }) });
  }
  return null;
}

/** It took the call and said nothing. */
function* whySilent(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const encrypted = yield* withTls(of, notes);
  if (encrypted) return encrypted;
  const second = yield* again(of, { credentials: null });
  notes.note('asked again on a new connection', sayReport(second));
  if (worked(second) || second.cause === 'auth-required') return notes.conclude('passing');
  if (second.cause !== 'timeout') return notes.open();
  const ports = others(of.url.port, of);
  const answers = yield* callPorts(ports);
  notes.note(`tried ports ${list(ports)} of the same address`, sayAnswers(answers));
  return notes.conclude('server-hung');
}

/** With TLS on the same port; `null` where nothing comes of that. */
function* withTls(of: FailedProbe, notes: Notebook): Trials<Diagnosis | null> {
  if (of.url.scheme !== 'rtsp') return null;
  const report = yield* again(of, { url: { ...of.url, scheme: 'rtsps' }, credentials: null });
  const isTls = report.tls !== null;
  notes.note(`spoke TLS on port ${of.url.port}`, isTls ? 'it showed a certificate' : sayReport(report));
  return isTls ? notes.conclude('encrypted', { line: 'tls' }) : null;
}

function* whereElse(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const ports = [...RTSP_PORTS, TLS_PORT].filter((port) => port !== of.url.port);
  const answers = yield* callPorts(ports);
  notes.note(`tried ports ${list(ports)} of the same address`, sayAnswers(answers));
  const open = RTSP_PORTS.filter((port) => answers.get(port) === 'open');
  return (yield* rtspAmong(open, of, notes)) ?? notes.open();
}

function* whyHungUp(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const encrypted = yield* withTls(of, notes);
  if (encrypted) return encrypted;
  return yield* doesItPass(of, notes);
}

/** Something else answers: is RTSP behind it, or beside it? */
function* whatAnswers(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  if (of.url.scheme === 'rtsp') {
    const inside = yield* again(of, { url: { ...of.url, scheme: 'http' }, credentials: null });
    const isOpen = spoke(inside);
    notes.note(`asked for RTSP over HTTP on port ${of.url.port}`, isOpen ? 'it opened a tunnel' : sayReport(inside));
    if (isOpen) return notes.conclude('tunnel', { line: 'tunnel' });
    const encrypted = yield* withTls(of, notes);
    if (encrypted) return encrypted;
  }
  const ports = RTSP_PORTS.filter((port) => port !== of.url.port);
  const answers = yield* callPorts(ports);
  notes.note(`tried ports ${list(ports)} of the same address`, sayAnswers(answers));
  const elsewhere = yield* rtspAmong(
    RTSP_PORTS.filter((port) => answers.get(port) === 'open'),
    of,
    notes,
  );
  if (elsewhere) return elsewhere;
  const isWeb = of.report.findings.some(({ because }) => because.includes('HTTP'));
  return isWeb ? notes.conclude('web-page') : notes.open();
}

function* isItPlain(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const plain = yield* again(of, { url: { ...of.url, scheme: 'rtsp' }, credentials: null });
  const isPlain = spoke(plain);
  notes.note(`spoke RTSP without TLS on port ${of.url.port}`, isPlain ? 'it answered' : sayReport(plain));
  return isPlain ? notes.conclude('not-encrypted', { line: 'plain' }) : notes.open();
}

const sampledS = ({ report }: FailedProbe): number =>
  (report.steps.find(({ name }) => name === 'sample')?.durationMs ?? 0) / 1000;

/** Tries it once more, as far and as long as it got before, and notes what came of it. */
function* worksNow(
  of: FailedProbe,
  notes: Notebook,
  did: string,
  more: Parameters<typeof again>[1] = {},
): Trials<boolean> {
  const report = yield* again(of, {
    media: of.report.steps.some(({ name }) => name === 'play'),
    sampleS: Math.min(MOST_SAMPLE_S, Math.max(SHORT_SAMPLE_S, sampledS(of))),
    ...more,
  });
  notes.note(did, worked(report) ? 'it worked' : sayReport(report));
  return worked(report);
}

/** It works now; of what went wrong later than a trial looks that says nothing. */
const passed = (of: FailedProbe, notes: Notebook): Diagnosis =>
  sampledS(of) <= MOST_SAMPLE_S ? notes.conclude('passing') : notes.open();

/** By the other of TCP and UDP; but first the same way again: what works then was no matter of the way. */
function* whichWay(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  const used = of.report.transport ?? (of.transport === 'udp' ? 'udp' : 'tcp');
  const other = used === 'udp' ? 'tcp' : 'udp';
  const drawn = (transport: 'tcp' | 'udp', words: string): Trials<boolean> =>
    worksNow(of, notes, `pulled it over ${transport.toUpperCase()}${words}`, { transport, media: true });
  if (yield* drawn(used, ' once more')) return passed(of, notes);
  return (yield* drawn(other, '')) ? notes.conclude('other-transport', { transport: other }) : notes.open();
}

/** The same again, a moment later. */
function* doesItPass(of: FailedProbe, notes: Notebook): Trials<Diagnosis> {
  return (yield* worksNow(of, notes, 'asked the same once more')) ? passed(of, notes) : notes.open();
}
