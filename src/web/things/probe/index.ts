export { ConnectionLog } from './connection-log.tsx';
export { cancelRound, probeRound } from './probe-all.ts';
export { cancelProbe, endProbeSample, probeStream } from './probe-runner.ts';
