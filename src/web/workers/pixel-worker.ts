import { expose } from 'comlink';
import { type Raster, sampleDown } from '../../core/optics/resample.ts';

/** Pixels are summed beside the page, so that dragging stays smooth. */
const pixelWork = {
  sampleDown: (source: Raster, width: number, height: number): Raster => sampleDown(source, width, height),
};
export type PixelWork = typeof pixelWork;
expose(pixelWork);
