/** Namespaces by the short name that ONVIF's own documents have for them. */
export const NAMESPACES = {
  device: 'http://www.onvif.org/ver10/device/wsdl',
  media: 'http://www.onvif.org/ver10/media/wsdl',
  media2: 'http://www.onvif.org/ver20/media/wsdl',
  ptz: 'http://www.onvif.org/ver20/ptz/wsdl',
  imaging: 'http://www.onvif.org/ver20/imaging/wsdl',
  events: 'http://www.onvif.org/ver10/events/wsdl',
  recording: 'http://www.onvif.org/ver10/recording/wsdl',
  search: 'http://www.onvif.org/ver10/search/wsdl',
  replay: 'http://www.onvif.org/ver10/replay/wsdl',
  analytics: 'http://www.onvif.org/ver20/analytics/wsdl',
  deviceio: 'http://www.onvif.org/ver10/deviceIO/wsdl',
} as const satisfies Readonly<Record<string, string>>;
export type ServiceName = keyof typeof NAMESPACES;
export const SERVICE_NAMES = Object.keys(NAMESPACES) as readonly ServiceName[]; // keys of the table above
