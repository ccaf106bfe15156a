import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { asOne, moveCommands } from '../../../core/document/moves.ts';
import { sayIpv4 } from '../../../core/net/ipv4.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';

/** Gives all channels of a device another address: one edit. */
export function useMoves(): (cameras: readonly Camera[], address: number) => void {
  const dispatch = useAppDispatch();
  return (cameras, address) => {
    const host = sayIpv4(address);
    const commands = moveCommands(cameras, host);
    if (commands.length === 0) return;
    dispatch(commandIssued(asOne(`${cameras.map(({ name }) => name).join(', ')}: now at ${host}`, commands)));
  };
}
