import { isRecord } from '../core/base/is-record.ts';
import { readJson } from '../core/base/read-json.ts';
import type { Camera } from '../core/document/chapters/cameras/camera.ts';
import { InputError } from './usage-error.ts';

/** By the camera's name, or by its name and address: `Front door@10.77.4.21` goes there and nowhere else. */
export type SecretsByName = ReadonlyMap<string, string>;

/** The secret of the account that draws a camera; `null` where it was not given. */
export const secretOfCamera = (secrets: SecretsByName, { name, host }: Pick<Camera, 'name' | 'host'>): string | null =>
  secrets.get(`${name}@${host}`) ?? secrets.get(name) ?? null;

/** A file of secrets: a flat object of texts, under names of cameras. */
export function readSecrets(text: string, file: string): SecretsByName {
  const read = readJson(text);
  if (!read.ok) throw new InputError(`${file}: ${read.error.message} Such as { "Front door": "…" }.`);
  const parsed = read.value;
  const secrets = isRecord(parsed) ? Object.entries(parsed) : [];
  const texts = secrets.flatMap(([of, secret]): [string, string][] =>
    typeof secret === 'string' ? [[of, secret]] : [],
  );
  if (!isRecord(parsed) || texts.length < secrets.length)
    throw new InputError(`${file}: expected an object of texts under names of cameras, such as { "Front door": "…" }.`);
  return new Map(texts);
}
