import { clearnessOf, SKY_RANGES, type Sky } from '../../../core/document/chapters/sky/sky.ts';
import { monthNames } from '../../../core/power/sun-budget.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { NumberField } from '../../ui/number-field.tsx';

/** How much of the light passes the air in each month: usual for its half of the earth until somebody knows better. */
export function SkyFields() {
  const dispatch = useAppDispatch();
  const { sky } = useAppSelector(selectSite);
  const shares = clearnessOf(sky);
  const set = (clearness: Sky['clearness']): void =>
    void dispatch(commandIssued({ kind: 'setSky', sky: { ...sky, clearness } }));
  return (
    <details className="mt-3">
      <summary className="w-fit py-0.5">
        Clearness index, month by month:{' '}
        <span className="text-soft">
          {sky.clearness ? 'entered' : `default ${(sky.latitudeDeg ?? 0) < 0 ? 'south' : 'north'} of the equator`}
        </span>
      </summary>
      <p className="mt-1 text-small text-soft">
        Share of the light outside the atmosphere that arrives on level ground: 0.3 in a dull month, 0.65 in a clear
        one.
      </p>
      <div className="mt-2 grid grid-cols-3 gap-x-3 gap-y-2 md:grid-cols-6">
        {shares.map((share, at) => {
          const month = monthNames([at + 1]);
          return (
            <NumberField
              key={month}
              label={month}
              value={share}
              range={SKY_RANGES.clearness}
              onKeep={(next) => set(shares.map((one, other) => (other === at ? (next ?? one) : one)))}
            />
          );
        })}
      </div>
      {sky.clearness && (
        <Button className="mt-2" onClick={() => set(null)}>
          Reset to default
        </Button>
      )}
    </details>
  );
}
