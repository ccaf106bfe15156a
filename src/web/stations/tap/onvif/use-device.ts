import { useState, useSyncExternalStore } from 'react';
import { MOST_ALLOWED_DOORS, type OnvifRequest } from '../../../../contract/onvif-api.ts';
import type { Account, Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import type { Model } from '../../../../core/document/chapters/models/model-card.ts';
import { knownOnvifFingerprint } from '../../../../core/evidence/known-certificate.ts';
import {
  isReadingCurrent,
  type RememberedReading,
  rememberedReading,
} from '../../../../core/evidence/onvif-evidence.ts';
import { onvifPortOf } from '../../../../core/evidence/onvif-port.ts';
import type { OtherDoor } from '../../../../core/onvif/service-place.ts';
import { newId } from '../../../store/new-id.ts';
import { commandIssued, selectIndex, selectSite } from '../../../store/site-slice.ts';
import { slipAsked } from '../../../store/slip-slice.ts';
import { useAppDispatch, useAppSelector } from '../../../store/store.ts';
import { mayGo, passwordAt } from '../../../things/account/index.ts';
import { boundTo, onvifPlace } from '../../../vault/camera-places.ts';
import { useVault } from '../../../vault/vault-context.tsx';
import { type DeviceRun, deviceRunner } from './device-runner.ts';

/** Which of a camera's accounts logs in by ONVIF. */
export type OnvifLogin = 'draws' | 'sets-up';

export interface DeviceAccess {
  readonly host: string;
  readonly port: number;
  readonly account: Account | null;
  /** What is sent to our own server; `null` while the secret is out of reach. */
  readonly request: OnvifRequest | null;
  readonly login: OnvifLogin;
  readonly setLogin: (login: OnvifLogin) => void;
  readonly hasBoth: boolean;
  /** Its password was typed for another address: a person is asked before it goes here. */
  readonly isHeld: boolean;
  /** Asks; `true` when it may go. */
  readonly allow: () => Promise<boolean>;
  readonly allowDoor: (door: OtherDoor) => Promise<boolean>;
  /** Takes a login that the device gave into the vault, as the account that pulls its streams. */
  readonly keepOffered: (offered: { readonly user: string; readonly secret: string }) => void;
  /** Its secret may be among those that are locked away. */
  readonly isLocked: boolean;
  /** Opens the slip where secrets are unlocked. */
  readonly unlock: () => void;
}

/** How a camera is reached by ONVIF: where, and as whom. */
export function useDeviceAccess(camera: Camera, model: Model | undefined): DeviceAccess {
  const vault = useVault();
  const dispatch = useAppDispatch();
  const hasBoth = camera.account !== null && camera.adminAccount !== null;
  const [wanted, setLogin] = useState<OnvifLogin>('draws');
  const login =
    wanted === 'sets-up' && camera.adminAccount
      ? 'sets-up'
      : camera.account || !camera.adminAccount
        ? 'draws'
        : 'sets-up';
  const account = login === 'draws' ? camera.account : camera.adminAccount;
  const { host } = camera;
  const port = onvifPortOf(camera, model);
  const user = account === null || account.user === '' ? null : account.user;
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const place = onvifPlace(camera, model);
  const use = { site, camera, account: user === null ? null : account, place };
  const state = passwordAt(use, vault);
  const isHeld = state.kind === 'held' || state.kind === 'elsewhere';
  const lacks = user !== null && state.kind !== 'ready';
  const secret = state.kind === 'ready' ? state.secret : null;
  // doors of this host that a person allowed it at, one question each
  const bound = account ? vault.boundOf(account.secretRef) : null;
  const alsoProve = (bound?.places ?? [])
    .filter((one) => one.host === place.host && one.line !== 'tunnel' && one.port !== camera.ports.rtsp)
    .map(({ port: other, line }) => ({ port: other, isTls: line === 'tls' }))
    .slice(0, MOST_ALLOWED_DOORS);
  return {
    host,
    port,
    account,
    request:
      lacks || host === ''
        ? null
        : {
            host,
            port,
            tls: camera.onvifTls,
            user,
            secret: user === null ? null : secret,
            alsoProve,
            knownFingerprint: camera.onvifTls ? knownOnvifFingerprint(index, camera) : null,
          },
    isHeld,
    allow: async () => (await mayGo([use], vault)).length > 0,
    allowDoor: async ({ port: other, isTls }) =>
      (await mayGo([{ ...use, place: { ...place, port: other, line: isTls ? 'tls' : 'plain' } }], vault)).length > 0,
    keepOffered: (offered) => {
      const bound = boundTo(site, camera, offered.user);
      const secretRef = newId('secret');
      vault.set(secretRef, offered.secret, bound);
      dispatch(commandIssued({ kind: 'setAccount', cameraId: camera.id, account: { user: offered.user, secretRef } }));
    },
    login,
    setLogin,
    hasBoth,
    isLocked: lacks && !isHeld && vault.state === 'locked',
    unlock: () => void dispatch(slipAsked('vault')),
  };
}

export interface DeviceState {
  readonly run: DeviceRun | null;
  readonly remembered: RememberedReading | null;
  /** It is of the address that the camera has now. */
  readonly isCurrent: boolean;
}

export function useDevice(camera: Camera, model: Model | undefined): DeviceState {
  const run = useSyncExternalStore(deviceRunner.subscribe, () => deviceRunner.runOf(camera.id));
  const siteId = useAppSelector(selectSite).id;
  const index = useAppSelector(selectIndex);
  const remembered = rememberedReading(index, camera.id);
  return {
    run: run?.siteId === siteId ? run : null,
    remembered,
    isCurrent: remembered !== null && isReadingCurrent(remembered, camera, model),
  };
}
