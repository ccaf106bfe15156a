import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';

interface TrustActProps {
  readonly cameraId: string;
  /** SHA-256 of the certificate that was shown instead of the known one. */
  readonly fingerprint: string;
  readonly onTrusted: () => void;
}

/** A certificate that changed, for a person to compare and to trust. */
export function TrustAct({ cameraId, fingerprint, onTrusted }: TrustActProps) {
  const dispatch = useAppDispatch();
  return (
    <>
      <span className="break-all">New certificate, SHA-256 {fingerprint}</span>
      <Button
        onClick={() => {
          dispatch(commandIssued({ kind: 'trustCertificate', cameraId, fingerprint, by: 'by eye' }));
          onTrusted();
        }}
      >
        It is the camera’s own: trust it
      </Button>
    </>
  );
}
