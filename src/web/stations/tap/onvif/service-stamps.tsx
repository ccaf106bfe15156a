import type { OnvifReading } from '../../../../core/onvif/reading.ts';

const NAMES: Readonly<Record<OnvifReading['services'][number]['name'], string>> = {
  device: 'Device',
  media: 'Media',
  media2: 'Media 2',
  ptz: 'PTZ',
  imaging: 'Imaging',
  events: 'Events',
  recording: 'Recording',
  search: 'Search',
  replay: 'Replay',
  analytics: 'Analytics',
  deviceio: 'Inputs and outputs',
};

/** Services as stamps in a passport: plain where it answers, with a brass edge where it gives another address. */
export function ServiceStamps({ reading }: { reading: OnvifReading }) {
  const isWithout = (name: keyof typeof NAMES): boolean => !reading.services.some((service) => service.name === name);
  const missing = (['media2', 'ptz', 'events'] as const).filter(isWithout);
  return (
    <ul aria-label="Services" className="flex flex-wrap gap-2">
      {reading.services.map(({ name, version, elsewhere, isTls }) => {
        const remark = elsewhere !== '' ? `at ${elsewhere}` : isTls ? 'encrypted' : version === '' ? 'older' : version;
        const isOdd = elsewhere !== '' || isTls;
        return (
          <li
            key={name}
            className={`border-2 px-2 py-0.5 text-center ${isOdd ? 'border-brass text-brass' : 'border-verdigris text-verdigris'}`}
          >
            <b className="block leading-4">{NAMES[name]}</b>
            <span className="font-mono text-[11.5px] leading-4">{remark}</span>
          </li>
        );
      })}
      {missing.map((name) => (
        <li key={name} className="border-2 border-dotted border-faint px-2 py-0.5 text-center text-soft">
          <b className="block leading-4">{NAMES[name]}</b>
          <span className="text-[11.5px] leading-4">not there</span>
        </li>
      ))}
    </ul>
  );
}
