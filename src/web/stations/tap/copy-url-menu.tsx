import { DropdownMenu } from 'radix-ui';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { streamUrlOf } from '../../../core/document/stream-address.ts';
import { buildStreamUrl } from '../../../core/net/stream-url.ts';
import { selectSite } from '../../store/site-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { loginOf, mayGo, passwordAt } from '../../things/account/index.ts';
import { Button } from '../../ui/button.tsx';
import { copyWords, useCopy } from '../../ui/use-copy.ts';
import { rtspPlace } from '../../vault/camera-places.ts';
import { useVault } from '../../vault/vault-context.tsx';

/** Copies the URL as it must be typed elsewhere; the secret only when asked for in so many words. */
export function CopyUrlMenu({ camera, stream }: { camera: Camera; stream: Stream }) {
  const vault = useVault();
  const { outcome, copy } = useCopy();
  const url = streamUrlOf(camera, stream);
  const site = useAppSelector(selectSite);
  const use = { site, camera, account: camera.account, place: rtspPlace(camera, stream) };
  const state = passwordAt(use, vault);
  // a URL with a password is a password on its way: it goes with the address that it was typed for
  const copyAll = async (): Promise<void> => {
    if ((await mayGo([use], vault)).length === 0) return;
    await copy(buildStreamUrl({ ...url, password: loginOf(use, vault).secret }));
  };
  const item =
    'flex min-h-8 cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-verdigris-wash data-[disabled]:text-soft pointer-coarse:min-h-11';
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>{copyWords(outcome, 'Copy')}</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="z-20 border border-ink bg-sheet py-1">
          <DropdownMenu.Item
            className={item}
            onSelect={() => void copy(buildStreamUrl({ ...url, user: null, password: null }))}
          >
            Without account
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} disabled={state.kind === 'none'} onSelect={() => void copyAll()}>
            With account and password
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
