export { cancelRound, probeRound } from './probe-round.ts';
export { cancelProbe, probeStream } from './probe-runner.ts';
export { WireTape } from './wire-tape.tsx';
