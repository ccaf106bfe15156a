export interface Network {
  readonly id: string;
  readonly name: string;
  readonly cidr: string;
  readonly gateway: string | null;
}
