import type { XmlNode } from '../../core/onvif/envelope.ts';

export interface OnvifAnswer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

/** One operation that was asked for. */
export interface Asked {
  readonly name: string;
  readonly node: XmlNode;
  readonly header: XmlNode;
  readonly host: string;
  readonly path: string;
  readonly signal: AbortSignal;
}

/** What every service of a device needs of it. */
export interface Speaker {
  readonly fault: (status: number, code: string, reason: string) => OnvifAnswer;
  /** By its own clock, ms since 1970. */
  readonly clockMs: () => number;
}
