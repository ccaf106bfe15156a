/** What stays of a device when its address moves: by it, it is known again. Empty where nobody read it. */
export interface Identity {
  /** MAC address of the plug or radio that it is on, as it was read or typed. */
  readonly mac: string;
  readonly serial: string;
  /** Identity of its ONVIF endpoint: WS-Discovery 1.1 §2.6. */
  readonly endpoint: string;
}
export const UNKNOWN_IDENTITY: Identity = { mac: '', serial: '', endpoint: '' };

/** How a device comes to its address, as it is planned. */
export const KEEPINGS = ['reservation', 'static', 'dynamic'] as const;
