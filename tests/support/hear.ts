import { type HearEvent, HearMachine } from '../../src/core/onvif-client/hear-machine.ts';
import { drive } from '../../src/server/drive.ts';
import { toHttp } from '../../src/server/http-transport.ts';
import { type OnvifTarget, talkOptions } from '../../src/server/works/run-onvif.ts';
import { plainWorld } from './onvif-doors.ts';

/** Listens to a device for so long; all that it told. */
export async function hear(target: OnvifTarget, seconds: number, timeoutMs: number): Promise<readonly HearEvent[]> {
  const events: HearEvent[] = [];
  const options = { ...talkOptions(target, plainWorld), seconds, timeoutMs, startedAtUnixMs: Date.now() };
  await drive({
    machine: new HearMachine(options),
    transport: toHttp,
    world: plainWorld,
    signal: new AbortController().signal,
    credentials: target.credentials,
    what: 'the listening',
    onEffect: (event: HearEvent) => events.push(event),
  });
  return events;
}
