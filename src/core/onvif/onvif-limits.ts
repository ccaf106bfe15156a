/** A name or an identity of a device, as it is kept: one line, and short. */
export const MOST_TEXT = 120;
/** Addresses with all their parameters. */
export const MOST_URI = 1024;
/** A token is given back as it came: one that was cut would name nothing, and so is none. */
export const MOST_TOKEN = 200;
/** Devices refuse a token of WS-Security older than this, at the latest [A]. */
export const TOKEN_LIFE_S = 300;
/** Of one answer: a box of 64 channels needs most of it; more is no answer. */
export const MAX_ANSWER_BYTES = 512 * 1024;
/** Of a reading as a site keeps it: more than any device of a house has. */
export const READING_LIMITS = {
  services: 16,
  profiles: 64,
  topics: 120,
  presets: 256,
  sources: 300,
  timeServers: 32,
  heldDoors: 16,
} as const;
