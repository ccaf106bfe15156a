/** The command line was wrong: exit code 2, with the usage. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}

/** The file was read, and what stands in it cannot be used: exit code 2, without the usage, which would hide the reason. */
export class InputError extends Error {
  override readonly name = 'InputError';
}
