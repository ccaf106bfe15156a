// The two text codecs every JavaScript host offers (WHATWG Encoding). Declared here because core is compiled
// without the DOM and without Node's types, so that nothing else of either can slip in.
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>;
}
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(bytes?: Uint8Array): string;
}
