import { useState, useSyncExternalStore } from 'react';
import {
  ALPHABET_NAMES,
  ALPHABETS,
  type AlphabetName,
  drawnBits,
  SECRET_LENGTHS,
  sayStrength,
  USUAL_LENGTH,
} from '../../../core/auth/secret-maker.ts';
import { estimatedBits } from '../../../core/auth/secret-traits.ts';
import { hasControl } from '../../../core/base/control-signs.ts';
import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import type { Account, Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { accountFor } from '../../../core/document/stream-address.ts';
import { ownUser, strengthWords } from '../../../core/stations/prepare/index.ts';
import { askStandin } from '../../api/standins.ts';
import { guessBitsOf, onStrengthKnown } from '../../store/password-strength.ts';
import { selectServer } from '../../store/server-slice.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { accountWithNewSecret, secretRoom } from '../../things/account/index.ts';
import { Button } from '../../ui/button.tsx';
import { CopyButton } from '../../ui/copy-button.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { boundTo } from '../../vault/camera-places.ts';
import { useVault } from '../../vault/vault-context.tsx';
import { useSiteView } from '../use-site-view.ts';

const MASK = '••••••••';

/**
 * The account that draws its streams, and the one who sets it up. A secret is made, kept in the vault and copied by one
 * act; it never stands on the page.
 */
export function AccountPanel({ camera }: { camera: Camera }) {
  const site = useAppSelector(selectSite);
  const dispatch = useAppDispatch();
  const vault = useVault();
  const [alphabet, setAlphabet] = useState<AlphabetName>('clear');
  const [length, setLength] = useState(USUAL_LENGTH);
  const [isMade, setIsMade] = useState(false);
  const view = useSiteView();
  const { account, adminAccount } = camera;
  const { signs, most, count, hasRefused } = secretRoom(camera, view, alphabet, length);
  const bits = drawnBits(signs.length, count);
  const secret = account && vault.get(account.secretRef);
  const guessBits = useGuessBits(secret || null, [camera.name, account?.user ?? '']);
  const paths = camera.streams.map(({ path }) => path);

  const setUser = (user: string): void => {
    const next = accountFor(user, paths, account?.secretRef ?? `secret-${camera.id}`);
    if (next?.user !== account?.user)
      dispatch(commandIssued({ kind: 'setAccount', cameraId: camera.id, account: next }));
  };
  const make = (): void => {
    const made = accountWithNewSecret(site, camera, account?.user || ownUser(site, camera), { signs, count }, vault);
    dispatch(commandIssued({ kind: 'setAccount', cameraId: camera.id, account: made }));
    setIsMade(true);
  };
  return (
    <Panel title="Accounts" aside="one that may view, one that sets up; neither is the maker’s">
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-[1fr_1fr_auto]">
        <UserField label="Streaming account" camera={camera} account={account} onKeep={setUser} />
        <SecretField
          label="Password"
          account={account}
          onKeep={(secret) => {
            const kept = account ?? { user: ownUser(site, camera), secretRef: `secret-${camera.id}` };
            vault.set(kept.secretRef, secret, boundTo(site, camera, kept.user));
            if (!account) dispatch(commandIssued({ kind: 'setAccount', cameraId: camera.id, account: kept }));
          }}
        />
        <span className="col-span-2 mt-5 flex flex-wrap gap-2 md:col-span-1">
          {account && vault.has(account.secretRef) && (
            <CopyButton text={() => vault.get(account.secretRef)} label={`Copy the password of ${camera.name}`}>
              Copy password
            </CopyButton>
          )}
        </span>
      </div>
      <p className="mt-1 text-small text-soft">
        {secret ? saySecret(secret, guessBits) : sayReach(account, vault.state)}
      </p>
      <fieldset className="mt-3 border-t border-hair pt-2">
        <legend className="sr-only">Create a password</legend>
        <div className="grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-[2fr_1fr_auto]">
          <SelectField
            label="A new password of"
            value={alphabet}
            onChange={(value) => setAlphabet(ALPHABET_NAMES.find((one) => one === value) ?? 'clear')}
            options={ALPHABET_NAMES.map((value) => ({ value, label: ALPHABETS[value].label }))}
          />
          <NumberField
            label="Characters"
            value={count}
            range={{ ...SECRET_LENGTHS, max: most }}
            hint={most < SECRET_LENGTHS.max ? `${most} at most: more is not taken everywhere` : undefined}
            onKeep={(value) => setLength(value ?? USUAL_LENGTH)}
          />
          <Button kind={secret ? 'plain' : 'main'} className="col-span-2 md:col-span-1 md:mt-5" onClick={make}>
            {account ? 'Create a new password' : 'Create account and password'}
          </Button>
        </div>
        <p className="mt-1 text-small text-soft">
          {Math.round(bits)} bits: {sayStrength(bits)}, by someone who overheard a login.
          {hasRefused && ' Characters that a destination cannot take are left out.'}
        </p>
      </fieldset>
      {isMade && (
        <p role="status" className="mt-2 border-l-[3px] border-brass pl-3 text-small">
          It is kept with the passwords. The camera has its old one until you set both at it: copy the password, and
          type the name.
        </p>
      )}
      <AtStandin camera={camera} />
      <div className="mt-3 grid grid-cols-2 items-start gap-x-3 gap-y-2 border-t border-hair pt-2 md:grid-cols-[1fr_1fr_auto]">
        <UserField
          label="Set-up account"
          camera={camera}
          account={adminAccount}
          onKeep={(user) => {
            const next: Account | null =
              user === '' ? null : { user, secretRef: adminAccount?.secretRef ?? `admin-${camera.id}` };
            if (next?.user !== adminAccount?.user)
              dispatch(commandIssued({ kind: 'setAdminAccount', cameraId: camera.id, account: next }));
          }}
        />
        <SecretField
          label="Password of the set-up account"
          account={adminAccount}
          onKeep={(secret) => {
            const kept = adminAccount ?? { user: '', secretRef: `admin-${camera.id}` };
            vault.set(kept.secretRef, secret, boundTo(site, camera, kept.user));
            if (!adminAccount) dispatch(commandIssued({ kind: 'setAdminAccount', cameraId: camera.id, account: kept }));
          }}
        />
        <span className="col-span-2 mt-5 md:col-span-1">
          {adminAccount && vault.has(adminAccount.secretRef) && (
            <CopyButton
              text={() => vault.get(adminAccount.secretRef)}
              label={`Copy the set-up password of ${camera.name}`}
            >
              Copy password
            </CopyButton>
          )}
        </span>
      </div>
    </Panel>
  );
}

const sayReach = (account: Account | null, state: string): string =>
  account === null
    ? 'No account yet. One click creates a name and a password.'
    : state === 'locked'
      ? 'Passwords are locked: findings about this one are not known until they are unlocked.'
      : 'Its password is not known here: type it, or create a new one.';

/** What can be said of a secret without telling it. */
const saySecret = (secret: string, guessBits: number | null): string =>
  `Password: ${[...secret].length} characters. ${strengthWords({ bits: estimatedBits(secret), guessBits })}${guessBits === null ? '; whether it can be guessed by words is not known yet' : ''}. It is kept with the passwords, shown to nobody.`;

/** How a password would be guessed: looked up beside the page, and told when it is known. */
const useGuessBits = (secret: string | null, hints: readonly string[]): number | null =>
  useSyncExternalStore(onStrengthKnown, () => (secret ? guessBitsOf(secret, hints) : null));

interface UserFieldProps {
  readonly label: string;
  readonly camera: Camera;
  readonly account: Account | null;
  readonly onKeep: (user: string) => void;
}

/** The name of an account, kept as one leaves it: blanks at its ends are kept too, and told. */
function UserField({ label, camera, account, onKeep }: UserFieldProps) {
  const site = useAppSelector(selectSite);
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? account?.user ?? '';
  const error = hasControl(text)
    ? 'A line break or another control character is in it.'
    : text.length > TEXT_LIMITS.user
      ? `At most ${TEXT_LIMITS.user} characters.`
      : null;
  const keep = (): void => {
    if (error !== null || typed === null) return;
    setTyped(null);
    onKeep(typed);
  };
  return (
    <TextField
      label={label}
      isCode
      value={text}
      placeholder={label === 'Streaming account' ? ownUser(site, camera) : 'not decided'}
      error={error}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

interface SecretFieldProps {
  readonly label: string;
  readonly account: Account | null;
  readonly onKeep: (secret: string) => void;
}

/** A secret that is typed, gone from the page as soon as it is kept. */
function SecretField({ label, account, onKeep }: SecretFieldProps) {
  const vault = useVault();
  const [typed, setTyped] = useState('');
  const error = hasControl(typed) ? 'A line break or another control character is in it.' : null;
  const keep = (): void => {
    if (error !== null) return;
    if (typed !== '') onKeep(typed);
    setTyped('');
  };
  return (
    <TextField
      label={label}
      type="password"
      autoComplete="new-password"
      isCode
      maxLength={TEXT_LIMITS.secret}
      placeholder={account && vault.has(account.secretRef) ? MASK : 'type it'}
      value={typed}
      error={error}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

/** In the demo the simulated camera is at hand: what one would do at its page is one act here. */
function AtStandin({ camera }: { camera: Camera }) {
  const isSimulated = useAppSelector(selectServer).network === 'simulated';
  const vault = useVault();
  const [said, setSaid] = useState<{ readonly isError: boolean; readonly text: string } | null>(null);
  const { account, host } = camera;
  const secret = account && vault.get(account.secretRef);
  if (!isSimulated || !account || account.user === '' || host === '' || !secret) return null;
  const set = async (): Promise<void> => {
    try {
      await askStandin({ host, inputs: null, account: { user: account.user, secret } });
      setSaid({ isError: false, text: 'Set at the simulated camera: it now accepts this account.' });
    } catch (error) {
      setSaid({ isError: true, text: error instanceof Error ? error.message : String(error) });
    }
  };
  return (
    <p className="mt-2 flex flex-wrap items-center gap-2 text-small">
      <Button className="text-small" onClick={() => void set()}>
        Set it at the simulated camera
      </Button>
      {said && (
        <span role={said.isError ? 'alert' : 'status'} className={said.isError ? 'text-brick' : 'text-soft'}>
          {said.text}
        </span>
      )}
    </p>
  );
}
