import type { ProbeCause } from './exchange-types.ts';

export interface StatusMeaning {
  readonly reason: string;
  readonly cause: ProbeCause;
  readonly means: string;
  readonly try: string;
}

/** RTSP status codes: RFC 2326 §7.1.1 and §11, RFC 7826 §17 (464–472, 553). `means` and `try` are the trade's experience. */
export const STATUS_CODES: Readonly<Record<number, StatusMeaning>> = {
  301: {
    reason: 'Moved Permanently',
    cause: 'protocol-error',
    means: 'the stream has moved',
    try: 'Use the address it names.',
  },
  302: { reason: 'Found', cause: 'protocol-error', means: 'the stream has moved', try: 'Use the address it names.' },
  400: {
    reason: 'Bad Request',
    cause: 'protocol-error',
    means: 'the camera does not accept this request',
    try: 'Look at the request in the connection log: a space or an @ in the URL must be encoded.',
  },
  401: {
    reason: 'Unauthorized',
    cause: 'auth-failed',
    means: 'the login was refused',
    try: 'Check account and password; wait five minutes if the account may be locked.',
  },
  403: {
    reason: 'Forbidden',
    cause: 'forbidden',
    means: 'the camera does not let this stream be pulled from here',
    try: 'Give the account the right to view; RTSP accounts may be separate from ONVIF accounts.',
  },
  404: {
    reason: 'Not Found',
    cause: 'not-found',
    means: 'there is no stream at this path',
    try: 'Check the path letter by letter; upper and lower case differ.',
  },
  405: {
    reason: 'Method Not Allowed',
    cause: 'protocol-error',
    means: 'the camera does not support this method',
    try: 'Update the camera’s firmware, or pull another of its streams.',
  },
  406: {
    reason: 'Not Acceptable',
    cause: 'protocol-error',
    means: 'the camera describes its stream in another form',
    try: 'Ask for application/sdp.',
  },
  408: {
    reason: 'Request Time-out',
    cause: 'timeout',
    means: 'the camera waited too long for a request',
    try: 'Probe again; look for loss on the way.',
  },
  410: {
    reason: 'Gone',
    cause: 'not-found',
    means: 'the recording was deleted',
    try: 'Refresh the list of recordings.',
  },
  412: {
    reason: 'Precondition Failed',
    cause: 'protocol-error',
    means: 'a header does not apply',
    try: 'Remove Range and Scale.',
  },
  413: {
    reason: 'Request Entity Too Large',
    cause: 'protocol-error',
    means: 'the request is too long',
    try: 'Shorten the account or path.',
  },
  414: {
    reason: 'Request-URI Too Large',
    cause: 'protocol-error',
    means: 'the URL is too long',
    try: 'Shorten the path.',
  },
  415: {
    reason: 'Unsupported Media Type',
    cause: 'protocol-error',
    means: 'the description has a type that is not accepted here',
    try: 'Update the camera’s firmware.',
  },
  451: {
    reason: 'Parameter Not Understood',
    cause: 'protocol-error',
    means: 'a parameter is unknown to the camera',
    try: 'Remove it.',
  },
  453: {
    reason: 'Not Enough Bandwidth',
    cause: 'too-many-sessions',
    means: 'the camera serves as many clients as it can',
    try: 'Close another viewer, pull the sub stream, or share one session through a relay.',
  },
  454: {
    reason: 'Session Not Found',
    cause: 'session-lost',
    means: 'the camera has forgotten the session',
    try: 'Probe again; it may have rebooted.',
  },
  455: {
    reason: 'Method Not Valid in This State',
    cause: 'protocol-error',
    means: 'the camera expected another order of requests',
    try: 'Probe again, then update the camera’s firmware.',
  },
  457: {
    reason: 'Invalid Range',
    cause: 'protocol-error',
    means: 'the range lies outside the recording',
    try: 'Check the clock of the recorder.',
  },
  459: {
    reason: 'Aggregate Operation Not Allowed',
    cause: 'protocol-error',
    means: 'it needs each track started alone',
    try: 'Update the camera’s firmware.',
  },
  460: {
    reason: 'Only Aggregate Operation Allowed',
    cause: 'protocol-error',
    means: 'it needs all tracks started together',
    try: 'Update the camera’s firmware.',
  },
  461: {
    reason: 'Unsupported Transport',
    cause: 'transport-refused',
    means: 'the camera does not support this transport',
    try: 'Choose the other transport, TCP or UDP.',
  },
  462: {
    reason: 'Destination Unreachable',
    cause: 'transport-refused',
    means: 'the camera cannot reach this computer',
    try: 'Pull over TCP.',
  },
  463: {
    reason: 'Destination Prohibited',
    cause: 'transport-refused',
    means: 'the camera does not send to this address',
    try: 'Pull over TCP.',
  },
  464: {
    reason: 'Data Transport Not Ready Yet',
    cause: 'server-error',
    means: 'the data channel is not ready',
    try: 'Wait and probe again.',
  },
  466: {
    reason: 'Key Management Error',
    cause: 'protocol-error',
    means: 'the keys of a secured stream do not agree',
    try: 'Set its clock, then use rtsps.',
  },
  470: {
    reason: 'Connection Authorization Required',
    cause: 'auth-unsupported',
    means: 'a proxy wants a certificate',
    try: 'Dial the camera directly.',
  },
  471: {
    reason: 'Connection Credentials Not Accepted',
    cause: 'auth-failed',
    means: 'the certificate was refused',
    try: 'Set its clock; renew the certificate.',
  },
  472: {
    reason: 'Failure to Establish Secure Connection',
    cause: 'protocol-error',
    means: 'no secure path could be made',
    try: 'Use rtsps.',
  },
  500: {
    reason: 'Internal Server Error',
    cause: 'server-error',
    means: 'the camera failed',
    try: 'Wait, pull fewer streams, restart it.',
  },
  501: {
    reason: 'Not Implemented',
    cause: 'protocol-error',
    means: 'the camera does not support this method',
    try: 'Update the camera’s firmware.',
  },
  502: {
    reason: 'Bad Gateway',
    cause: 'server-error',
    means: 'the relay cannot reach its camera',
    try: 'Probe the camera from the relay’s network.',
  },
  503: {
    reason: 'Service Unavailable',
    cause: 'server-error',
    means: 'the camera is overloaded or still starting',
    try: 'Wait a minute, pull fewer streams.',
  },
  504: {
    reason: 'Gateway Time-out',
    cause: 'server-error',
    means: 'the relay got no answer from its camera',
    try: 'Probe the camera from the relay’s network.',
  },
  505: {
    reason: 'RTSP Version Not Supported',
    cause: 'protocol-error',
    means: 'the camera speaks another RTSP version',
    try: 'It must speak RTSP 1.0.',
  },
  551: {
    reason: 'Option Not Supported',
    cause: 'protocol-error',
    means: 'a required option is missing',
    try: 'Update the camera’s firmware.',
  },
  553: {
    reason: 'Proxy Unavailable',
    cause: 'server-error',
    means: 'the proxy is unavailable',
    try: 'Dial the camera directly.',
  },
};

/** The meaning of any status; codes the table lacks are judged by their class (RFC 2326 §7.1.1). */
export function meaningOf(status: number): StatusMeaning {
  return (
    STATUS_CODES[status] ?? {
      reason: 'unlisted',
      cause: status >= 500 ? 'server-error' : 'protocol-error',
      means: status >= 500 ? 'the camera failed' : 'the camera refused the request',
      try: 'Open the exchange in the connection log.',
    }
  );
}
