export function AddressPage() {
  return null;
}
