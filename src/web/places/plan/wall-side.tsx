import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { WALL_MATERIALS, type Wall, wallAsLong, wallLengthM } from '../../../core/base/plan-geometry.ts';
import { between } from '../../../core/base/range.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { ThingActs } from '../../things/thing/index.ts';
import { NumberField } from '../../ui/number-field.tsx';
import { SelectField, TextField } from '../../ui/text-field.tsx';
import { useDraft } from '../../ui/use-draft.ts';

const WALL_LENGTH_M = between(0.1, 1000, 'm');

/** A wall: what it is called, of what it is, how long somebody taped it. */
export function WallSide({ wall, onGone }: { wall: Wall; onGone: () => void }) {
  const dispatch = useAppDispatch();
  const put = (changed: Wall): void => void dispatch(commandIssued({ kind: 'putWall', wall: changed }));
  const name = useDraft(wall.name, (typed) => typed.trim() !== wall.name && put({ ...wall, name: typed.trim() }));
  return (
    <div className="flex flex-col gap-2">
      <TextField
        label="Name"
        placeholder="garden wall"
        maxLength={TEXT_LIMITS.name}
        value={name.value}
        onChange={(event) => name.hold(event.target.value)}
        onBlur={name.letGo}
        onKeyDown={({ key }) => key === 'Enter' && name.letGo()}
      />
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          label="Of"
          value={wall.material}
          onChange={(value) => put({ ...wall, material: WALL_MATERIALS.find((one) => one === value) ?? wall.material })}
          options={WALL_MATERIALS.map((value) => ({ value, label: value }))}
        />
        <NumberField
          label="Length, m"
          value={wallLengthM(wall)}
          range={WALL_LENGTH_M}
          digits={2}
          hint="its far end moves"
          onKeep={(lengthM) => lengthM !== null && put(wallAsLong(wall, lengthM))}
        />
      </div>
      <ThingActs kind="wall" id={wall.id} onGone={onGone} />
    </div>
  );
}
