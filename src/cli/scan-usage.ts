/** Beside the command, which is loaded only when it is asked for. */
export const SCAN_USAGE = `cleartap scan RANGE [--ports 554,8554,…] [--rate 100] [--timeout 1] [--discover] [--site FILE] [--allow-public] [--json]
  cleartap scan --discover [--site FILE] [--json]      only where you are the owner, or asked to work`;
