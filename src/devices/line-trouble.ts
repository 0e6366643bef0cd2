/**
 * Why the line to a device broke, in a sentence.
 *
 * @param device as it stands in a sentence, without its article
 */
export function lineTrouble(
  { code }: Pick<NodeJS.ErrnoException, 'code'>,
  { host, port }: { readonly host: string; readonly port: number },
  device: string,
): string {
  if (code === 'ECONNREFUSED') return `Nothing listens at ${host}, port ${port}: is the ${device} on?`;
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return `There is no machine named ${host}.`;
  if (code === 'ETIMEDOUT' || code === 'EHOSTUNREACH') return `${host} cannot be reached.`;
  return `The line to the ${device} broke.`;
}
