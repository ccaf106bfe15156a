import { useEffect, useRef } from 'react';
import { capital } from '../../../core/base/say.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import type { AddressRemark } from '../../../core/net/address-remarks.ts';
import { SCHEMES_OF_LINES } from '../../../core/net/camera-line.ts';
import { asksForLogin } from '../../../core/net/path-places.ts';
import { DEFAULT_PORTS, encodeUserinfo, urlHost } from '../../../core/net/stream-url.ts';
import { SAMPLE_S } from '../../../core/probe/sample-lengths.ts';
import type { TransportChoice } from '../../../core/rtsp/client-types.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';
import { TextField } from '../../ui/text-field.tsx';
import { ThumbBar } from '../../ui/thumb-bar.tsx';
import { UrlLine, type UrlPart } from '../../ui/url-line.tsx';
import { CopyUrlMenu } from './copy-url-menu.tsx';
import { LinePicker } from './line-picker.tsx';
import { SamplePicker } from './sample-picker.tsx';
import { TransportPicker } from './transport-picker.tsx';
import { type Draft, type SecretState, useAddressDraft } from './use-address-draft.ts';

const MASK = '••••••••';

const SECRET_WORDS: Readonly<Record<SecretState, string>> = {
  memory: 'The password is kept for this visit only, shown to nobody.',
  open: 'The password is kept encrypted, shown to nobody.',
  unkept: 'The password is not kept yet: it lasts for this visit.',
  locked: 'Passwords are locked: unlock them at the top, or type this one.',
  unknown: 'The password is not known here.',
};

const remarkProps = (remark: AddressRemark | undefined) => ({
  error: remark?.stops ? remark.text : null,
  warning: remark && !remark.stops ? remark.text : null,
});

/** The URL that the fields make, in its parts; the secret is masked. */
const urlParts = (
  { draft, hasSecret, shownPath }: ReturnType<typeof useAddressDraft>,
  scheme: keyof typeof DEFAULT_PORTS,
): readonly UrlPart[] => [
  { name: 'scheme', text: `${scheme}://` },
  ...(draft.user === ''
    ? []
    : [
        { name: 'account', text: encodeUserinfo(draft.user) },
        { name: 'colon', text: ':', isSign: true },
        { name: 'password', text: hasSecret ? MASK : '?' },
        { name: 'at', text: '@', isSign: true },
      ]),
  { name: 'host', text: draft.host === '' ? '?' : urlHost(draft.host.trim()) },
  ...(draft.port === String(DEFAULT_PORTS[scheme]) ? [] : [{ name: 'port', text: `:${draft.port}` }]),
  { name: 'path', text: shownPath === '' ? ' ' : shownPath },
];

interface AddressPanelProps {
  readonly camera: Camera;
  readonly stream: Stream;
  readonly isProbing: boolean;
  readonly transport: TransportChoice;
  readonly onTransport: (choice: TransportChoice) => void;
  readonly sampleS: number;
  readonly onSample: (seconds: number) => void;
  /** Its sample is under way, and may be ended by hand. */
  readonly isSampling: boolean;
  readonly onEnough: () => void;
  /** A probe was asked for, and the secret is not there. */
  readonly isSecretWanted: boolean;
  /** Takes the fields as they stand, saved. */
  readonly onProbe: (withoutSecret?: boolean) => void;
  readonly onCancel: () => void;
}

/**
 * Host, port, path and account of a stream, and the URL they make, as it must be typed elsewhere. Typing shows at once;
 * leaving a field keeps it. A whole URL pasted into any field is taken apart.
 */
export function AddressPanel({
  camera,
  stream,
  isProbing,
  transport,
  onTransport,
  sampleS,
  onSample,
  isSampling,
  onEnough,
  isSecretWanted,
  onProbe,
  onCancel,
}: AddressPanelProps) {
  const address = useAddressDraft(camera, stream);
  const secret = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (isSecretWanted) secret.current?.focus();
  }, [isSecretWanted]);
  const { draft, remarks, pasteProblem } = address;
  const scheme = SCHEMES_OF_LINES[camera.line];
  const usualPort = String(DEFAULT_PORTS[scheme]);
  const keep = (): void => {
    address.keepDraft();
    address.keepSecret();
  };
  const field = (name: keyof Draft) => ({
    value: draft[name],
    ...remarkProps(remarks[name]),
    isCode: true,
    onChange: (event: { target: { value: string } }) => address.type(name, event.target.value),
    onBlur: address.keepDraft,
  });

  return (
    <Panel
      title={`${capital(stream.label)} stream, as it must be entered elsewhere`}
      actions={
        <>
          <LinePicker camera={camera} />
          {camera.line !== 'tunnel' && <TransportPicker value={transport} onChange={onTransport} />}
          <SamplePicker value={sampleS} onChange={onSample} />
          <CopyUrlMenu camera={camera} stream={stream} />
          <ThumbBar>
            {isProbing ? (
              <>
                {isSampling && sampleS > SAMPLE_S && (
                  <Button kind="main" shortcut="P" onClick={onEnough}>
                    Stop and judge
                  </Button>
                )}
                <Button onClick={onCancel}>Cancel</Button>
              </>
            ) : (
              <Button
                kind="main"
                shortcut="P"
                disabled={!address.isSound}
                onClick={() => {
                  keep();
                  onProbe();
                }}
              >
                Probe
              </Button>
            )}
          </ThumbBar>
        </>
      }
    >
      <UrlLine parts={urlParts(address, scheme)} />
      <form
        className="mt-3 grid grid-cols-6 gap-x-2 gap-y-2 md:grid-cols-[3fr_72px_3fr_3fr_2fr]"
        onPaste={address.takeApart}
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <TextField label="Host" className="col-span-4 md:col-span-1" {...field('host')} />
        <TextField label="Port" inputMode="numeric" className="col-span-2 md:col-span-1" {...field('port')} />
        <TextField label="Path" className="col-span-6 md:col-span-1" {...field('path')} />
        <TextField label="Account" className="col-span-3 md:col-span-1" {...field('user')} />
        <TextField
          ref={secret}
          label="Password"
          type="password"
          autoComplete="new-password"
          className="col-span-3 md:col-span-1"
          placeholder={address.isSecretKept ? MASK : draft.user === '' ? 'none' : 'type it'}
          value={address.secretDraft}
          {...remarkProps(remarks.secret)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || address.secretDraft === '') return;
            event.preventDefault();
            keep();
            onProbe();
          }}
          onChange={(event) => address.typeSecret(event.target.value)}
          onBlur={address.keepSecret}
          isCode
        />
        <button type="submit" className="hidden">
          Save
        </button>
      </form>
      {isSecretWanted && (
        <p role="alert" className="mt-2 flex flex-wrap items-center gap-2 border-l-[3px] border-brass pl-3">
          Not probed: the password of {draft.user || 'this account'} is not known here. Type it, and probe again.
          <Button kind="quiet" onClick={() => onProbe(true)}>
            No login needed: probe without
          </Button>
        </p>
      )}
      <p
        className={`mt-2 text-small ${pasteProblem ? 'text-brick' : 'text-soft'}`}
        role={pasteProblem ? 'alert' : undefined}
      >
        {pasteProblem ??
          `${draft.port === usualPort ? `${usualPort} is the usual port and is left out. ` : ''}${asksForLogin(draft.path) ? 'What stands in { } is filled in only when it is sent. ' : ''}Paste a whole URL into any field to split it into the fields. ${draft.user === '' ? '' : `${SECRET_WORDS[address.secretState]} ${address.passwordGoes}`}`}
      </p>
    </Panel>
  );
}
