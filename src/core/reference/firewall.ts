/** One line of a firewall between networks: the first that matches decides. */
export interface FirewallRule {
  readonly src: string;
  readonly dst: string;
  /** `any` is wild, as in the names. */
  readonly proto: string;
  /** `null` is any port. */
  readonly port: number | null;
  readonly action: 'allow' | 'deny';
}

export interface Passage {
  readonly src: string;
  readonly dst: string;
  readonly proto: string;
  readonly port: number;
}

const isWild = (rule: string, asked: string): boolean => rule === 'any' || rule === asked;

/**
 * Whether a connection may be opened, and which line says so. Within one network nothing is asked; what no line names is
 * denied. Answers of an allowed connection pass: the firewall is stateful.
 */
export function mayPass(
  rules: readonly FirewallRule[],
  { src, dst, proto, port }: Passage,
): { readonly allowed: boolean; readonly rule: number | null } {
  if (src === dst) return { allowed: true, rule: null };
  const at = rules.findIndex(
    (rule) =>
      isWild(rule.src, src) &&
      isWild(rule.dst, dst) &&
      isWild(rule.proto, proto) &&
      (rule.port === null || rule.port === port),
  );
  return at === -1 ? { allowed: false, rule: null } : { allowed: rules[at]?.action === 'allow', rule: at };
}
