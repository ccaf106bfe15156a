import type { ClientEffect } from '../rtsp/client-types.ts';
import type { CameraEffect, CommonEffect } from './machine.ts';

/** Timers that a client asks for: how long an answer is waited for, and when a keep-alive is due. */
export type ClientTimer = 'answer' | 'keepAlive';

/**
 * What the driver does for an RTSP client.
 * @param timeoutMs how long an answer is waited for, or less where the client knows better
 * @returns `null` for an effect that says something: that is for the machine itself
 */
export function driveEffectOf(
  effect: ClientEffect,
  timeoutMs: number,
): CameraEffect | Extract<CommonEffect<ClientTimer>, { kind: 'arm' | 'disarm' }> | null {
  switch (effect.kind) {
    case 'send':
    case 'openUdp':
    case 'sendDatagram':
    case 'redial':
    case 'close':
      return effect;
    case 'armAnswer':
      return { kind: 'arm', timer: 'answer', afterMs: Math.min(timeoutMs, effect.mostMs ?? timeoutMs) };
    case 'disarmAnswer':
      return { kind: 'disarm', timer: 'answer' };
    case 'armKeepAlive':
      return { kind: 'arm', timer: 'keepAlive', afterMs: effect.afterMs };
    default:
      return null;
  }
}
