import type { HeadPersonality } from './onvif-personality.ts';

/** Where a head looks: degrees right and up of straight on, and its zoom. */
export interface HeadView {
  readonly panDeg: number;
  readonly tiltDeg: number;
  readonly zoom: number;
}

type Motion =
  | { readonly kind: 'rest'; readonly at: HeadView }
  | {
      readonly kind: 'runs';
      readonly from: HeadView;
      /** Shares of the top speeds, and of the zoom a second. */
      readonly velocity: { readonly pan: number; readonly tilt: number; readonly zoom: number };
      readonly fromMs: number;
      readonly untilMs: number;
    }
  | {
      readonly kind: 'goes';
      readonly from: HeadView;
      readonly to: HeadView;
      readonly fromMs: number;
      readonly takesMs: number;
    };

const clamp = (value: number, min: number, max: number): number => Math.min(max, Math.max(min, value));
/** Zooms through all of its range in so long. */
const ZOOM_S = 3;

export interface HeadPreset extends HeadView {
  readonly token: string;
  readonly name: string;
}

/** A head that turns as a real one: it needs its time, runs until it is stopped, and ends at its stops. */
export class SimulatedHead {
  #motion: Motion = { kind: 'rest', at: { panDeg: 0, tiltDeg: 0, zoom: 1 } };
  #presets: HeadPreset[];
  #stops = 0;
  #lastToken: number;
  readonly #listeners = new Set<() => void>();

  constructor(
    readonly personality: HeadPersonality,
    private readonly nowMs: () => number,
  ) {
    this.#presets = personality.presets.map(({ name, pan, tilt, zoom }, at) => ({
      token: String(at + 1),
      name,
      panDeg: pan,
      tiltDeg: tilt,
      zoom,
    }));
    this.#lastToken = this.#presets.length;
  }

  onChange(listener: () => void): void {
    this.#listeners.add(listener);
  }

  viewAt(atMs: number): HeadView {
    const motion = this.#motion;
    const { panDegPerS, tiltDegPerS, zoomMax, deadMs = 0 } = this.personality;
    switch (motion.kind) {
      case 'rest':
        return motion.at;
      case 'runs': {
        const seconds = Math.max(0, Math.min(atMs, motion.untilMs) - motion.fromMs - deadMs) / 1000;
        const { from, velocity } = motion;
        return this.#held({
          panDeg: from.panDeg + velocity.pan * panDegPerS * seconds,
          tiltDeg: from.tiltDeg + velocity.tilt * tiltDegPerS * seconds,
          zoom: from.zoom + (velocity.zoom * (zoomMax - 1) * seconds) / ZOOM_S,
        });
      }
      case 'goes': {
        const share = clamp((atMs - motion.fromMs) / motion.takesMs, 0, 1);
        const between = (a: number, b: number): number => a + (b - a) * share;
        return {
          panDeg: between(motion.from.panDeg, motion.to.panDeg),
          tiltDeg: between(motion.from.tiltDeg, motion.to.tiltDeg),
          zoom: between(motion.from.zoom, motion.to.zoom),
        };
      }
    }
  }

  get view(): HeadView {
    return this.viewAt(this.nowMs());
  }

  isMovingAt(atMs: number): boolean {
    const motion = this.#motion;
    if (motion.kind === 'rest') return false;
    if (motion.kind === 'goes') return atMs < motion.fromMs + motion.takesMs;
    const [now, next] = [this.viewAt(atMs), this.viewAt(atMs + 20)];
    return (
      atMs < motion.untilMs && (now.panDeg !== next.panDeg || now.tiltDeg !== next.tiltDeg || now.zoom !== next.zoom)
    );
  }

  /** @param timeoutS how long at most; `null` until it is stopped */
  run(velocity: { readonly pan: number; readonly tilt: number; readonly zoom: number }, timeoutS: number | null): void {
    const fromMs = this.nowMs();
    const untilMs =
      timeoutS === null || this.personality.ignoresTimeout ? Number.POSITIVE_INFINITY : fromMs + timeoutS * 1000;
    this.#change({ kind: 'runs', from: this.view, velocity, fromMs, untilMs });
  }

  goTo(to: HeadView): void {
    const from = this.view;
    const { panDegPerS, tiltDegPerS, zoomMax } = this.personality;
    const held = this.#held(to);
    const takesMs =
      1000 *
      Math.max(
        Math.abs(held.panDeg - from.panDeg) / panDegPerS,
        Math.abs(held.tiltDeg - from.tiltDeg) / tiltDegPerS,
        zoomMax > 1 ? (Math.abs(held.zoom - from.zoom) * ZOOM_S) / (zoomMax - 1) : 0,
        0.05,
      );
    this.#change({ kind: 'goes', from, to: held, fromMs: this.nowMs(), takesMs });
  }

  /** Stops, unless the stop gets lost. */
  stop(): void {
    this.#stops += 1;
    const { losesStopEvery } = this.personality;
    if (losesStopEvery !== undefined && this.#stops % losesStopEvery === 0) return;
    this.#change({ kind: 'rest', at: this.view });
  }

  get presets(): readonly HeadPreset[] {
    return this.#presets;
  }
  /** The token of the preset; `null` where none fits any more, or there is none of that token. */
  setPreset(name: string, token: string | null): string | null {
    const { panDeg, tiltDeg, zoom } = this.view;
    if (token !== null) {
      const at = this.#presets.findIndex((one) => one.token === token);
      if (at < 0) return null;
      this.#presets[at] = { token, name, panDeg, tiltDeg, zoom };
      return token;
    }
    if (this.#presets.length >= this.personality.mostPresets) return null;
    this.#lastToken += 1;
    const fresh = String(this.#lastToken);
    this.#presets.push({ token: fresh, name: name || `Preset ${fresh}`, panDeg, tiltDeg, zoom });
    return fresh;
  }
  removePreset(token: string): boolean {
    const before = this.#presets.length;
    this.#presets = this.#presets.filter((one) => one.token !== token);
    return this.#presets.length < before;
  }
  goToPreset(token: string): boolean {
    const preset = this.#presets.find((one) => one.token === token);
    if (preset) this.goTo(preset);
    return preset !== undefined;
  }

  #held({ panDeg, tiltDeg, zoom }: HeadView): HeadView {
    const { panMin, panMax, tiltMin, tiltMax, zoomMax } = this.personality;
    return {
      panDeg: clamp(panDeg, panMin, panMax),
      tiltDeg: clamp(tiltDeg, tiltMin, tiltMax),
      zoom: clamp(zoom, 1, zoomMax),
    };
  }
  #change(motion: Motion): void {
    this.#motion = motion;
    for (const listener of this.#listeners) listener();
  }
}
