import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { changedFingerprint } from '../../../core/evidence/known-certificate.ts';
import type { ProbeReport } from '../../../core/probe/probe-types.ts';
import { loginLineOf, selectServer } from '../../store/server-slice.ts';
import { selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { askOneMore, askReadable, TrustAct } from '../../things/account/index.ts';
import { Button } from '../../ui/button.tsx';
import { boundTo } from '../../vault/camera-places.ts';
import { useVault } from '../../vault/vault-context.tsx';

/** What a person allows for one press. */
export interface LoginLeave {
  readonly oneMore?: boolean;
  readonly mayGoReadable?: boolean;
  readonly byBasic?: boolean;
}

interface LoginActsProps {
  readonly camera: Camera;
  readonly stream: Stream;
  readonly report: ProbeReport;
  readonly onProbe: (leave: LoginLeave) => void;
}

/** What only a person decides after a probe: one login more, a readable password, a new certificate. Nothing where none is asked. */
export function LoginActs({ camera, stream, report, onProbe }: LoginActsProps) {
  const vault = useVault();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const { logins } = useAppSelector(selectServer);
  const { host, account } = camera;
  const user = account?.user ?? '';
  const line = loginLineOf(logins, host, user);
  const shown = changedFingerprint(index, stream.id);
  const isHeld = report.cause === 'login-held';
  const offersBasic =
    camera.line === 'plain' &&
    (report.cause === 'auth-failed' || isHeld) &&
    report.auth.offered.includes('basic') &&
    account !== null;
  if (!isHeld && !offersBasic && shown === null) return null;
  const once = async (): Promise<void> => {
    if (await askOneMore(host, user, line)) onProbe({ oneMore: true });
  };
  const readable = async (): Promise<void> => {
    if (!account || !(await askReadable(host, user))) return;
    vault.allowReadable(account.secretRef, boundTo(site, camera, user));
    onProbe({ oneMore: true, mayGoReadable: true, byBasic: true });
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 border-l-[3px] border-brass pl-3">
      {isHeld && (
        <>
          <span>{report.findings[0]?.because}</span>
          <Button onClick={() => void once()}>Log in once more</Button>
        </>
      )}
      {offersBasic && <Button onClick={() => void readable()}>Log in by Basic, readable</Button>}
      {shown !== null && <TrustAct cameraId={camera.id} fingerprint={shown} onTrusted={() => onProbe({})} />}
    </div>
  );
}
