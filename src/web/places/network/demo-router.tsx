import { useState } from 'react';
import type { RouterAnswer, RouterRequest } from '../../../contract/router-api.ts';
import type { Reservations } from '../../../core/handover/router-files.ts';
import { askRouter } from '../../api/router.ts';
import { Button } from '../../ui/button.tsx';
import { download } from '../../ui/download.ts';
import { Panel } from '../../ui/panel.tsx';

/** The simulated router of the demo: it keeps reservations, and forgets all else when the power fails. */
export function DemoRouter({ reservations: { ready } }: { reservations: Reservations }) {
  const [answer, setAnswer] = useState<RouterAnswer | null>(null);
  const [said, setSaid] = useState('');
  const ask = async (request: RouterRequest, done: string): Promise<RouterAnswer | null> => {
    try {
      const given = await askRouter(request);
      setAnswer(given);
      setSaid(done);
      return given;
    } catch (error) {
      setSaid(error instanceof Error ? error.message : 'The simulated router did not respond.');
      return null;
    }
  };
  const reserve = ready.map(({ mac, ip, name }) => ({ mac, ip, name }));
  return (
    <Panel title="The mill’s router, simulated" aside="of the demo">
      <p className="mb-2 flex flex-wrap gap-2">
        <Button
          disabled={reserve.length === 0}
          onClick={() => void ask({ reserve, act: 'look' }, 'The reservations are entered.')}
        >
          Enter the reservations
        </Button>
        <Button
          onClick={() =>
            void ask({ reserve: null, act: 'cutPower' }, 'Power was cut and is back. Scan the network again.')
          }
        >
          Cut the power
        </Button>
        <Button
          onClick={() =>
            void ask({ reserve: null, act: 'look' }, 'Its leases are saved.').then(
              (given) => given && download('mill-router.leases', 'text/plain', given.leases),
            )
          }
        >
          Save its leases
        </Button>
      </p>
      <p role="status" className="min-h-5">
        {said}
        {answer &&
          ` It has ${answer.reservations.length} ${answer.reservations.length === 1 ? 'reservation' : 'reservations'}.`}
      </p>
    </Panel>
  );
}
