/** Pixels in rows from the upper left, red, green, blue, opacity a byte each. */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
}

/**
 * Brings a picture down to so many pixels: each new pixel is the mean of all it covers, as a sensor's cell sums the light
 * that falls on it. Parts of pixels count by their share.
 * @throws RangeError when it would have to invent pixels
 */
export function sampleDown(source: Raster, width: number, height: number): Raster {
  if (!(Number.isInteger(width) && Number.isInteger(height) && width >= 1 && height >= 1))
    throw new RangeError(`size: expected whole pixels, got ${width} × ${height}`);
  if (width > source.width || height > source.height)
    throw new RangeError(`size: expected at most ${source.width} × ${source.height}, got ${width} × ${height}`);
  const rgba = new Uint8ClampedArray(width * height * 4);
  const [stepX, stepY] = [source.width / width, source.height / height];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sums = [0, 0, 0, 0];
      for (let sy = Math.floor(y * stepY); sy < Math.min(source.height, (y + 1) * stepY); sy++) {
        const shareY = Math.min(sy + 1, (y + 1) * stepY) - Math.max(sy, y * stepY);
        for (let sx = Math.floor(x * stepX); sx < Math.min(source.width, (x + 1) * stepX); sx++) {
          const share = shareY * (Math.min(sx + 1, (x + 1) * stepX) - Math.max(sx, x * stepX));
          const at = (sy * source.width + sx) * 4;
          for (let part = 0; part < 4; part++) sums[part] = (sums[part] ?? 0) + share * (source.rgba[at + part] ?? 0);
        }
      }
      for (let part = 0; part < 4; part++)
        rgba[(y * width + x) * 4 + part] = Math.round((sums[part] ?? 0) / (stepX * stepY));
    }
  return { width, height, rgba };
}
