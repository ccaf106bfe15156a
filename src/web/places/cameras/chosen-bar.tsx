import { useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import { TAP_USE_WORDS, TAP_USES, type TapUse } from '../../../core/base/tap-uses.ts';
import { POWER_WAY_WORDS, POWER_WAYS } from '../../../core/base/ways.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import { MEDIUM_OF_WAY } from '../../../core/document/chapters/links/link.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import type { OneCommand } from '../../../core/document/site-commands.ts';
import { chooseForAll, feedForAll, tapForAll } from '../../../core/site/chosen-cameras.ts';
import { viewOf } from '../../../core/site/site-view.ts';
import { camerasToProbe } from '../../../core/site/to-probe.ts';
import { feedsIn } from '../../../core/stations/power/index.ts';
import { ownUser } from '../../../core/stations/prepare/index.ts';
import { newId } from '../../store/new-id.ts';
import { selectProbeAll } from '../../store/probe-all-slice.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { accountWithNewSecret, usualRoom } from '../../things/account/index.ts';
import { probeRound } from '../../things/probe/index.ts';
import { Button } from '../../ui/button.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { useVault } from '../../vault/vault-context.tsx';

interface ChosenBarProps {
  readonly cameras: readonly Camera[];
  readonly onNone: () => void;
  readonly onAll: () => void;
}

/** What is done to all chosen cameras at once: each act is one edit, and undo takes it back whole. */
export function ChosenBar({ cameras, onNone, onAll }: ChosenBarProps) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const isProbing = useAppSelector(selectProbeAll).status === 'running';
  const [modelId, setModelId] = useState('');
  const [destinationId, setDestinationId] = useState('');
  const [use, setUse] = useState<TapUse>('record');
  const [way, setWay] = useState('');
  const [gearId, setGearId] = useState('');
  const [told, setTold] = useState('');
  const ids = new Set(cameras.map(({ id }) => id));
  const many = sayMany(cameras.length, 'camera');
  const model = site.models.find(({ id }) => id === modelId);
  const destination = site.destinations.find(({ id }) => id === destinationId);
  const power = POWER_WAYS.find((one) => one === way);
  const feeders = power ? site.gear.filter((gear) => feedsIn(power, gear)) : [];
  const feeder = feeders.find(({ id }) => id === gearId);
  const act = (commands: readonly OneCommand[], what: string): void => {
    if (commands.length > 0) dispatch(commandIssued({ kind: 'many', commands, what }));
    setTold(commands.length > 0 ? `${what}.` : 'Already so: nothing was changed.');
  };
  const probe = (): void => {
    const asked = camerasToProbe(site, index, true).filter(({ camera }) => ids.has(camera.id));
    setTold(asked.length < cameras.length ? `${cameras.length - asked.length} have no address and are left out.` : '');
    void probeRound(asked, vault, dispatch);
  };
  /** A name and a secret for each that has none; those that have one keep it. */
  const makeAccounts = (): void => {
    const view = viewOf(site, index);
    const taken: string[] = [];
    const commands = cameras.flatMap((camera): readonly OneCommand[] => {
      if (camera.account && camera.account.user !== '') return [];
      const user = ownUser(site, camera, taken);
      taken.push(user);
      const account = accountWithNewSecret(site, camera, user, usualRoom(camera, view), vault);
      return [{ kind: 'setAccount', cameraId: camera.id, account }];
    });
    act(
      commands,
      `${sayMany(commands.length, 'account')} created, each with its own password, to be set at the cameras`,
    );
  };
  return (
    <section aria-label="Chosen cameras" className="no-print mb-3 border border-verdigris bg-sheet px-3 py-2">
      <div className="flex flex-wrap items-center gap-2">
        <b>{many} chosen</b>
        <Button disabled={isProbing} onClick={probe}>
          Probe them
        </Button>
        <Button onClick={makeAccounts}>Create their accounts</Button>
        <Button kind="quiet" onClick={onAll}>
          Choose all that are shown
        </Button>
        <Button kind="quiet" onClick={onNone}>
          Choose none
        </Button>
        <span role="status" className="ml-auto text-small text-soft">
          {told}
        </span>
      </div>
      <div className="mt-2 grid gap-x-4 gap-y-2 lg:grid-cols-3">
        <div className="grid grid-cols-[1fr_auto] items-end gap-2">
          <SelectField
            label="Model of all"
            value={modelId}
            onChange={setModelId}
            options={[
              { value: '', label: site.models.length === 0 ? 'no model card in this site' : 'choose a model card' },
              ...site.models.map((one) => ({ value: one.id, label: nameOfModel(one) })),
            ]}
          />
          <Button
            disabled={!model}
            aria-label="Set the model of all chosen"
            onClick={() =>
              model && act(chooseForAll(cameras, model.id), `${many}: model card of ${nameOfModel(model)} chosen`)
            }
          >
            Set
          </Button>
        </div>
        <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <SelectField
            label="Goes to"
            value={destinationId}
            onChange={setDestinationId}
            options={[
              { value: '', label: site.destinations.length === 0 ? 'no destination yet' : 'choose one' },
              ...site.destinations.map(({ id, name }) => ({ value: id, label: name })),
            ]}
          />
          <SelectField
            label="to"
            value={use}
            onChange={(value) => setUse(TAP_USES.find((one) => one === value) ?? 'record')}
            options={TAP_USES.map((value) => ({ value, label: TAP_USE_WORDS[value] }))}
          />
          <Button
            disabled={!destination}
            aria-label="Send all chosen"
            onClick={() =>
              destination &&
              act(
                tapForAll(site, cameras, { destinationId: destination.id, use }, () => newId('tap')),
                `${many} go to ${destination.name} to ${TAP_USE_WORDS[use]}, each by its ${use === 'record' || use === 'still' ? 'first' : 'last'} stream`,
              )
            }
          >
            Tap
          </Button>
        </div>
        <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <SelectField
            label="Power source"
            value={way}
            onChange={(value) => {
              setWay(value);
              setGearId('');
            }}
            options={[
              { value: '', label: 'choose a power source' },
              ...POWER_WAYS.map((value) => ({ value, label: POWER_WAY_WORDS[value] })),
            ]}
          />
          <SelectField
            label="from"
            value={feeder ? gearId : ''}
            onChange={setGearId}
            options={[
              { value: '', label: power && MEDIUM_OF_WAY[power] ? 'nothing yet' : '–' },
              ...feeders.map(({ id, name }) => ({ value: id, label: name })),
            ]}
          />
          <Button
            disabled={!power}
            aria-label="Set the power source of all chosen"
            onClick={() =>
              power &&
              act(
                feedForAll(site, cameras, { way: power, gearId: feeder?.id ?? null }, () => newId('link')),
                `${many} powered by ${POWER_WAY_WORDS[power]}${feeder ? ` from ${feeder.name}` : ''}`,
              )
            }
          >
            Set
          </Button>
        </div>
      </div>
    </section>
  );
}
