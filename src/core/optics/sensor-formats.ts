/**
 * Nominal active size of a sensor by its format, 16:9, mm. [A] The data sheet's width counts before it.
 * Source: diagonal = 16 mm × fraction from 1/2" up, 18 mm × fraction below.
 */
export const SENSOR_FORMATS = [
  { format: '1/4"', widthMm: 3.92, heightMm: 2.21 },
  { format: '1/3"', widthMm: 5.23, heightMm: 2.94 },
  { format: '1/2.9"', widthMm: 5.41, heightMm: 3.04 },
  { format: '1/2.8"', widthMm: 5.6, heightMm: 3.15 },
  { format: '1/2.7"', widthMm: 5.81, heightMm: 3.27 },
  { format: '1/2.5"', widthMm: 6.28, heightMm: 3.53 },
  { format: '1/2"', widthMm: 6.97, heightMm: 3.92 },
  { format: '1/1.8"', widthMm: 7.75, heightMm: 4.36 },
  { format: '1/1.2"', widthMm: 11.62, heightMm: 6.54 },
] as const;
