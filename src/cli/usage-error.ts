/** The command line was wrong: exit code 2, with the usage. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}
