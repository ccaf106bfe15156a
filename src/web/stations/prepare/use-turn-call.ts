import { useEffect, useRef } from 'react';

const TONE_HZ = 880;
const BEATS_S = [0, 0.28, 0.56];
const BEAT_S = 0.18;
/** A pattern that is felt through a glove, ms. */
const VIBRATION = [300, 120, 300, 120, 300];

/**
 * Calls at the turn of a step, by a tone and by vibration. The tone is handed to the sound device with its time ahead: it
 * comes in time where the browser slows the timers of a page that lies in the background.
 * @param turnMs when, in real time; `null` calls for nothing
 */
export function useTurnCall(turnMs: number | null, isOn: boolean): { readonly prime: () => void } {
  const sound = useRef<AudioContext | null>(null);
  useEffect(() => {
    const leftMs = turnMs === null ? -1 : turnMs - Date.now();
    if (!isOn || leftMs <= 0) return;
    const timer = setTimeout(() => navigator.vibrate?.(VIBRATION), leftMs);
    const device = sound.current;
    const tones =
      device?.state === 'running'
        ? BEATS_S.map((afterS) => {
            const tone = device.createOscillator();
            const volume = device.createGain();
            volume.gain.value = 0.3;
            tone.frequency.value = TONE_HZ;
            tone.connect(volume).connect(device.destination);
            const at = device.currentTime + leftMs / 1000 + afterS;
            tone.start(at);
            tone.stop(at + BEAT_S);
            return tone;
          })
        : [];
    return () => {
      clearTimeout(timer);
      for (const tone of tones) tone.disconnect();
    };
  }, [turnMs, isOn]);
  useEffect(() => () => void sound.current?.close().catch(() => {}), []);
  return {
    /** A browser lets a page sound only once somebody pressed something in it. */
    prime: () => {
      try {
        sound.current ??= new AudioContext();
        void sound.current.resume();
      } catch {
        // no sound device: it vibrates, or is looked at
      }
    },
  };
}

/** Keeps the screen lit while somebody has both hands full; where the browser cannot, nothing is lost. */
export function useLitScreen(isWanted: boolean): void {
  useEffect(() => {
    if (!isWanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let isOver = false;
    const ask = async (): Promise<void> => {
      if (document.visibilityState !== 'visible') return;
      try {
        lock = await navigator.wakeLock.request('screen');
        if (isOver) await lock.release();
      } catch {
        // low on battery, or forbidden
      }
    };
    void ask();
    const again = (): void => void ask();
    document.addEventListener('visibilitychange', again);
    return () => {
      isOver = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release().catch(() => {});
    };
  }, [isWanted]);
}
