/**
 * How long texts and lists of a site may be. They stand here once: fields, importers, commands, the schema and what is
 * read of a camera all take them from here, so that nothing can be made that cannot be opened again.
 */
export const TEXT_LIMITS = {
  id: 80,
  /** `secret-` and the id of a camera. */
  secretRef: 100,
  name: 80,
  place: 200,
  /** Of a stream, of a lens. */
  label: 40,
  /** RFC 1035 §2.3.4: a name has at most 255 octets, its length bytes among them. */
  host: 253,
  user: 200,
  secret: 1024,
  path: 2000,
  codec: 20,
  /** `camera:ID`, `stream:ID` … */
  subject: 120,
  quantity: 60,
  /** A whole URL without its account fits. */
  evidence: 4096,
  source: 200,
  logText: 1000,
  /** As file systems take it. */
  fileName: 255,
  /** A MAC address, in whatever notation it was typed. */
  mac: 40,
  serial: 80,
  /** `urn:uuid:` and what a device puts behind it. */
  endpoint: 200,
  refName: 60,
  refValue: 500,
  siteNotes: 20_000,
} as const;

/** Far above any house, low enough that a hostile file cannot hang the page. */
export const LIST_LIMITS = {
  cameras: 5000,
  streamsOfCamera: 16,
  candidates: 4,
  networks: 500,
  gear: 500,
  links: 20_000,
  models: 2000,
  destinations: 500,
  codecs: 20,
  taps: 20_000,
  /** Entries of the journal; long before it, it is condensed. */
  journal: 50_000,
  factsOfEntry: 200,
  logRefs: 40,
  assumptions: 500,
  walls: 2000,
  routePoints: 200,
  draws: 40,
  costOptions: 8,
  costLines: 60,
  costPacks: 20,
  nameServers: 4,
  reachRows: 2000,
  forwards: 200,
} as const;

/** Largest numbers that a stream can have: what a description or a parameter set says beyond them is not believed. */
export const STREAM_LIMITS = {
  sidePx: 20_000,
  fps: 1000,
  bitrateKbps: 10_000_000,
  gopFrames: 100_000,
  /** RTP clocks in use go from 8 kHz of speech to 90 kHz of video and 192 kHz of sound. */
  clockHz: 10_000_000,
  channels: 64,
} as const;
