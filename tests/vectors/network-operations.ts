import { checkPlan } from '../../src/core/net/address-plan.ts';
import { classify, isSameSubnet, overlaps, parseCidr, parseIpv4 } from '../../src/core/net/ipv4.ts';
import { parseMac } from '../../src/core/net/mac.ts';
import { mayPass } from '../../src/core/reference/firewall.ts';
import { cidrInfo, prefixOfMask } from '../../src/core/reference/subnets.ts';

// biome-ignore lint/suspicious/noExplicitAny: each operation names the fields it reads
type Input = any;

const address = (text: string): number => {
  const value = parseIpv4(text);
  if (value === null) throw new TypeError(`${text} is no address`);
  return value;
};
const block = (text: string) => {
  const cidr = parseCidr(text);
  if (!cidr) throw new TypeError(`${text} is no network`);
  return cidr;
};

/** Addresses, blocks, MAC addresses, plans and what may pass between networks. */
export const subnet: Readonly<Record<string, (input: Input) => unknown>> = {
  parse_ipv4: ({ text }) => ({ value: parseIpv4(text) }),
  cidr_info: (input) => cidrInfo(block(`${input.address}/${input.prefix}`)),
  same_subnet: ({ a, b, prefix }) => ({ same: isSameSubnet(address(a), address(b), prefix) }),
  overlap: ({ a, b }) => ({ overlap: overlaps(block(a), block(b)) }),
  mask_to_prefix: ({ mask }) => ({ prefix: prefixOfMask(mask) }),
  classify: (input) => ({ kind: classify(address(input.address)) }),
  mac: ({ text }) => {
    const mac = parseMac(text);
    return {
      mac: mac?.mac ?? null,
      locallyAdministered: mac?.isLocal ?? null,
      multicast: mac?.isGroup ?? null,
    };
  },
  plan_check: ({ network, prefix, gateway, pool, devices }) => ({
    issues: checkPlan(
      {
        cidr: block(`${network}/${prefix}`),
        gateway: gateway === null ? null : address(gateway),
        pool: pool && { from: address(pool.from), to: address(pool.to) },
      },
      devices.map((device: Input) => ({ ...device, mac: device.mac ?? '' })),
    ),
  }),
  vlan_reach: ({ rules, ...passage }) => mayPass(rules, passage),
};
