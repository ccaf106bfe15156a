import { isRecord } from '../core/base/is-record.ts';
import type { Camera } from '../core/document/chapters/cameras/camera.ts';
import { InputError } from './usage-error.ts';

/** By the camera's name, or by their reference in the site. */
export type SecretsByName = ReadonlyMap<string, string>;

/** The secret of the account that draws a camera; `null` where it was not given. */
export const secretOfCamera = (secrets: SecretsByName, { name, account }: Camera): string | null =>
  secrets.get(name) ?? (account && secrets.get(account.secretRef)) ?? null;

/** A file of secrets: a flat object of texts, under names of cameras. */
export function readSecrets(text: string, file: string): SecretsByName {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new InputError(`${file}: expected JSON, such as { "Front door": "…" }.`);
  }
  const secrets = isRecord(parsed) ? Object.entries(parsed) : [];
  const texts = secrets.flatMap(([of, secret]): [string, string][] =>
    typeof secret === 'string' ? [[of, secret]] : [],
  );
  if (!isRecord(parsed) || texts.length < secrets.length)
    throw new InputError(`${file}: expected an object of texts under names of cameras, such as { "Front door": "…" }.`);
  return new Map(texts);
}
