import { Cam } from 'onvif';

/** The third-party client, with promises. */
export interface ThirdPartyCam {
  readonly cam: Cam;
  call<T>(name: string, ...args: readonly unknown[]): Promise<T>;
}

type Callback = (error: Error | null, value: unknown) => void;

/** Connects a client that nobody of ours wrote: it reads time, services, profiles and sources. */
export function connectThirdParty(target: {
  readonly host: string;
  readonly port: number;
  readonly user: string | null;
  readonly password: string | null;
}): Promise<ThirdPartyCam> {
  const { host: hostname, port, user, password } = target;
  return new Promise((resolve, reject) => {
    const cam = new Cam(
      { hostname, port, username: user ?? '', password: password ?? '', timeout: 8000, preserveAddress: true },
      (error: Error | null) => {
        if (error) return reject(error);
        const methods = cam as unknown as Record<string, (...args: unknown[]) => void>; // called by name
        resolve({
          cam,
          call: <T>(name: string, ...args: readonly unknown[]) =>
            new Promise<T>((done, failed) => {
              const settle: Callback = (problem, value) => (problem ? failed(problem) : done(value as T));
              methods[name]?.call(cam, ...args, settle);
            }),
        });
      },
    );
  });
}
