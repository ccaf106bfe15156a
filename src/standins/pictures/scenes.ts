import { walkAt } from '../onvif/walker.ts';

/** A thing that moves in a scene: drawn in `phases` variants, one of which is shown at any time. */
export interface MovingPart {
  /** Place in the scene's own 960×540 units. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly phases: number;
  /** SVG body of one phase, in the part's own units. */
  readonly draw: (phase: number) => string;
  readonly phaseAt: (unixMs: number) => number;
  /** Where it is, if it does not stay at `x`; `null` while it is not there. */
  readonly xAt?: (unixMs: number) => number | null;
}

export interface Scene {
  /** SVG body in 960×540 units. */
  readonly background: string;
  readonly parts: readonly MovingPart[];
  /** Strength of the sensor noise, in steps of luma: what makes a dark room cost more bits than a bright one. */
  readonly noise: number;
}

export const SCENE_WIDTH = 960;
export const SCENE_HEIGHT = 540;

const TURN_PHASES = 8;

/** Twelve paddles look the same every 30°, so eight steps of 3.75° turn the wheel smoothly. */
const wheel: MovingPart = {
  x: 520,
  y: 120,
  width: 300,
  height: 300,
  phases: TURN_PHASES,
  phaseAt: (unixMs) => Math.floor(unixMs / 85) % TURN_PHASES,
  draw: (phase) => {
    const paddles = Array.from({ length: 12 }, (_, index) => {
      const angle = index * 30 + (phase * 30) / TURN_PHASES;
      return `<g transform="rotate(${angle} 150 150)"><rect x="144" y="14" width="12" height="126" fill="#5b4630"/><rect x="126" y="6" width="48" height="16" fill="#6e5439"/></g>`;
    });
    return `<circle cx="150" cy="150" r="112" fill="none" stroke="#4c3a28" stroke-width="12"/>${paddles.join('')}<circle cx="150" cy="150" r="22" fill="#3a2c1e"/>`;
  },
};

/** How often somebody walks along the sluice, and how long they take. */
export const SLUICE_WALK = { everyMs: 12_000, forMs: 5000 } as const;

const WALK_PHASES = 4;
const WALKER_WIDTH = 70;
const walker: MovingPart = {
  x: 0,
  y: 236,
  width: WALKER_WIDTH,
  height: 180,
  phases: WALK_PHASES,
  phaseAt: (unixMs) => Math.floor(unixMs / 180) % WALK_PHASES,
  xAt: (unixMs) => {
    const share = walkAt(unixMs, SLUICE_WALK);
    return share === null ? null : share * (SCENE_WIDTH + WALKER_WIDTH) - WALKER_WIDTH;
  },
  draw: (phase) => {
    const step = [16, 6, -16, -6][phase] ?? 0;
    return (
      `<path d="M35 104 L${35 + step} 176 M35 104 L${35 - step} 176" stroke="#2b3438" stroke-width="14" stroke-linecap="round"/>` +
      `<path d="M35 48 L${35 - step} 98 M35 48 L${35 + step} 98" stroke="#7a3f33" stroke-width="10" stroke-linecap="round"/>` +
      '<rect x="20" y="42" width="30" height="66" rx="12" fill="#8a4a3c"/><circle cx="35" cy="24" r="17" fill="#d8b08c"/><path d="M17 20 Q35 -6 53 20 Z" fill="#3a3f33"/>'
    );
  },
};

const SWING_PHASES = 16;
const lamp: MovingPart = {
  x: 600,
  y: 0,
  width: 260,
  height: 230,
  phases: SWING_PHASES,
  phaseAt: (unixMs) => Math.floor(((unixMs % 3200) / 3200) * SWING_PHASES),
  draw: (phase) => {
    const angle = 14 * Math.sin((phase / SWING_PHASES) * 2 * Math.PI);
    return `<g transform="rotate(${angle} 130 0)"><rect x="128" y="0" width="4" height="120" fill="#2e2a26"/><path d="M94 158 L166 158 L150 118 L110 118 Z" fill="#33423f"/><circle cx="130" cy="170" r="20" fill="#f4e7bd"/></g>`;
  },
};

const GLOW_PHASES = 8;
const embers: MovingPart = {
  x: 330,
  y: 220,
  width: 300,
  height: 190,
  phases: GLOW_PHASES,
  phaseAt: (unixMs) => Math.floor(unixMs / 140) % GLOW_PHASES,
  draw: (phase) => {
    const flames = [40, 95, 150, 205, 260].map((x, at) => {
      const height = 60 + 34 * Math.sin(((phase + 3 * at) / GLOW_PHASES) * 2 * Math.PI);
      return `<path d="M${x - 26} 176 Q${x} ${176 - height} ${x + 26} 176 Z" fill="${at % 2 ? '#e9a04a' : '#d9743a'}"/>`;
    });
    return `<path d="M0 190 V84 Q150 -46 300 84 V190 Z" fill="#2a1712"/>${flames.join('')}<rect x="14" y="170" width="272" height="14" fill="#8a3a22"/>`;
  },
};

/** The scenes of the demo site, drawn for this project. */
export const SCENES = {
  sluice: {
    background: `
      <defs><linearGradient id="s" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#c9d6d8"/><stop offset="1" stop-color="#e9e4d2"/></linearGradient></defs>
      <rect width="960" height="540" fill="url(#s)"/>
      <path d="M0 250 Q160 190 330 236 T700 210 T960 240 V330 H0 Z" fill="#8d9c80"/>
      <rect x="660" y="90" width="300" height="300" fill="#a8927a"/><path d="M640 96 L810 10 L980 96 Z" fill="#6f5a4a"/>
      <rect x="860" y="170" width="54" height="74" fill="#46525a"/><rect x="885" y="170" width="4" height="74" fill="#a8927a"/>
      <rect x="0" y="330" width="960" height="210" fill="#5f7f86"/>
      <path d="M0 372 H960 M0 410 H960 M0 452 H960 M0 500 H960" stroke="#7897a0" stroke-width="3" stroke-dasharray="90 46"/>
      <rect x="60" y="300" width="400" height="14" fill="#4a4138"/><rect x="60" y="340" width="400" height="10" fill="#4a4138"/>
      <path d="M80 260 V420 M170 260 V420 M260 260 V420 M350 260 V420 M440 260 V420" stroke="#3b332b" stroke-width="12"/>
      <rect x="190" y="220" width="50" height="170" fill="#7b6a52"/>`,
    parts: [wheel, walker],
    noise: 3,
  },
  'boot-room': {
    background: `
      <defs><linearGradient id="w" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#b9ae9b"/><stop offset="1" stop-color="#8f8573"/></linearGradient></defs>
      <rect width="960" height="540" fill="url(#w)"/>
      <path d="M0 400 L960 300 V540 H0 Z" fill="#6c6250"/>
      <rect x="110" y="90" width="210" height="330" fill="#4f4132"/><rect x="128" y="108" width="174" height="312" fill="#67543f"/>
      <circle cx="284" cy="270" r="9" fill="#c9b98e"/>
      <rect x="420" y="236" width="360" height="18" fill="#5a4936"/>
      <path d="M450 254 h44 v96 q30 2 36 24 h-80 Z M552 254 h44 v96 q30 2 36 24 h-80 Z M654 254 h44 v90 q30 2 36 24 h-80 Z" fill="#2f3d3a"/>
      <path d="M800 120 q26 40 4 150 h-56 q-20 -110 4 -150 Z" fill="#7d5b48"/>`,
    parts: [lamp],
    noise: 8,
  },
  oven: {
    background: `
      <rect width="960" height="540" fill="#7d6f60"/>
      <path d="M0 70 H960 M0 150 H960 M0 230 H960 M0 310 H960 M0 390 H960" stroke="#6b5e50" stroke-width="5"/>
      <path d="M200 540 V150 Q480 -60 760 150 V540 Z" fill="#a3876a"/><path d="M300 430 V270 Q480 120 660 270 V430 Z" fill="#4b3a2e"/>
      <rect x="0" y="430" width="960" height="110" fill="#5a4c3e"/>
      <rect x="60" y="120" width="96" height="300" fill="#64513d"/><path d="M74 170 h68 M74 240 h68 M74 310 h68" stroke="#c8a774" stroke-width="26"/>
      <path d="M800 420 V80 M800 80 h60" stroke="#3c3128" stroke-width="10"/><path d="M842 80 h44 v74 h-44 Z" fill="#c9b58c"/>`,
    parts: [embers],
    noise: 7,
  },
  press: {
    background: `
      <rect width="960" height="540" fill="#9c8f7c"/>
      <path d="M0 90 H960 M0 180 H960 M0 270 H960 M0 360 H960" stroke="#8a7d6a" stroke-width="6"/>
      <rect x="0" y="430" width="960" height="110" fill="#5d5243"/>
      <rect x="230" y="40" width="30" height="400" fill="#5b4630"/><rect x="560" y="40" width="30" height="400" fill="#5b4630"/>
      <rect x="210" y="30" width="400" height="40" fill="#6e5439"/><rect x="396" y="70" width="28" height="150" fill="#4f5a5c"/>
      <rect x="280" y="220" width="260" height="26" fill="#6e5439"/><rect x="290" y="246" width="240" height="150" fill="#8a6a45"/>
      <path d="M310 246 V396 M350 246 V396 M390 246 V396 M430 246 V396 M470 246 V396 M510 246 V396" stroke="#5b4630" stroke-width="8"/>
      <rect x="250" y="396" width="320" height="28" fill="#4c3a28"/>
      <ellipse cx="760" cy="420" rx="110" ry="34" fill="#7b6a52"/><rect x="650" y="300" width="220" height="120" fill="#7b6a52"/>
      <path d="M650 330 H870 M650 384 H870" stroke="#3f4a4c" stroke-width="10"/>`,
    parts: [lamp],
    noise: 4,
  },
  stair: {
    background: `
      <rect width="960" height="540" fill="#a9a397"/>
      <rect x="0" y="0" width="340" height="540" fill="#8d8679"/>
      <path d="M340 540 V470 H440 V400 H540 V330 H640 V260 H740 V190 H840 V120 H960 V540 Z" fill="#6f5d49"/>
      <path d="M340 470 H440 M440 400 H540 M540 330 H640 M640 260 H740 M740 190 H840 M840 120 H960" stroke="#4c3e30" stroke-width="8"/>
      <path d="M360 330 L900 -30" stroke="#3d332a" stroke-width="14"/>
      <path d="M400 300 V420 M500 236 V350 M600 170 V280 M700 104 V210 M800 36 V140" stroke="#3d332a" stroke-width="7"/>
      <rect x="70" y="120" width="190" height="300" fill="#5d6f6a"/><path d="M70 220 H260 M70 320 H260" stroke="#44524e" stroke-width="6"/>
      <rect x="92" y="150" width="146" height="56" fill="#e6e0d2"/><rect x="92" y="250" width="146" height="56" fill="#d9d2c1"/><rect x="92" y="350" width="146" height="56" fill="#e6e0d2"/>`,
    parts: [lamp],
    noise: 4,
  },
} as const satisfies Record<string, Scene>;

export type SceneName = keyof typeof SCENES;
