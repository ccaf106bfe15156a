import { useState, useSyncExternalStore } from 'react';
import type { OnvifRequest } from '../../../../contract/onvif-api.ts';
import type { Account, Camera } from '../../../../core/document/chapters/cameras/camera.ts';
import type { Model } from '../../../../core/document/chapters/models/model-card.ts';
import {
  isReadingCurrent,
  onvifPortOf,
  type RememberedReading,
  rememberedReading,
} from '../../../../core/document/onvif-evidence.ts';
import { selectIndex, selectSite } from '../../../store/site-slice.ts';
import { slipAsked } from '../../../store/slip-slice.ts';
import { useAppDispatch, useAppSelector } from '../../../store/store.ts';
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
  const secret = account ? vault.get(account.secretRef) : null;
  const lacks = user !== null && secret === null;
  return {
    host,
    port,
    account,
    request: lacks || host === '' ? null : { host, port, user, secret: user === null ? null : secret },
    login,
    setLogin,
    hasBoth,
    isLocked: lacks && vault.state === 'locked',
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
