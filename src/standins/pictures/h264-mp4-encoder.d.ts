declare module 'h264-mp4-encoder' {
  interface H264Mp4Encoder {
    width: number;
    height: number;
    frameRate: number;
    speed: number;
    quantizationParameter: number;
    groupOfPictures: number;
    outputFilename: string;
    readonly FS: { readFile(name: string): Uint8Array; unlink(name: string): void };
    initialize(): void;
    addFrameYuv(frame: Uint8Array): void;
    finalize(): void;
    delete(): void;
  }
  const module: { createH264MP4Encoder(): Promise<H264Mp4Encoder> };
  export default module;
}
