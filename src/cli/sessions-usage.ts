import { MOST_SEATS, USUAL_SEATS } from '../core/sessions/sessions-types.ts';

export const SESSIONS_USAGE = `cleartap sessions rtsp://host:port/path [--user NAME] [--pass-env VAR | --pass-stdin] [--most ${USUAL_SEATS}, at most ${MOST_SEATS}]
               [--transport tcp|udp|auto] [--timeout 5] [--allow-public] [--json]`;
