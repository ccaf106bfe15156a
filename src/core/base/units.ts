declare const unit: unique symbol;
type Quantity<U extends string> = number & { readonly [unit]: U };

export type BitsPerSecond = Quantity<'bit/s'>;
export type Bytes = Quantity<'byte'>;
export type Seconds = Quantity<'s'>;

/** Brands are made here and nowhere else. 1 kbit = 1000 bit, 1 TB = 10^12 byte (IEC 80000-13). */
export const kilobits = (perSecond: number): BitsPerSecond => (perSecond * 1000) as BitsPerSecond;
export const bytes = (count: number): Bytes => count as Bytes;
export const terabytes = (count: number): Bytes => (count * 1e12) as Bytes;
export const gigabytes = (count: number): Bytes => (count * 1e9) as Bytes;
export const seconds = (count: number): Seconds => count as Seconds;
export const hours = (count: number): Seconds => (count * 3600) as Seconds;
export const days = (count: number): Seconds => (count * 86_400) as Seconds;

export const inTB = (size: Bytes): number => size / 1e12;
export const inGiB = (size: Bytes): number => size / 2 ** 30;
