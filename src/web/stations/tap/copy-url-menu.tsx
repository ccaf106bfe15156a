import { DropdownMenu } from 'radix-ui';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import { streamUrlOf } from '../../../core/document/stream-address.ts';
import { buildStreamUrl } from '../../../core/net/stream-url.ts';
import { Button } from '../../ui/button.tsx';
import { copyWords, useCopy } from '../../ui/use-copy.ts';
import { useVault } from '../../vault/vault-context.tsx';

/** Copies the URL as it must be typed elsewhere; the secret only when asked for in so many words. */
export function CopyUrlMenu({ camera, stream }: { camera: Camera; stream: Stream }) {
  const vault = useVault();
  const { outcome, copy } = useCopy();
  const url = streamUrlOf(camera, stream);
  const secret = camera.account ? vault.get(camera.account.secretRef) : null;
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
          <DropdownMenu.Item
            className={item}
            disabled={secret === null}
            onSelect={() => void copy(buildStreamUrl({ ...url, password: secret }))}
          >
            With account and secret
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
