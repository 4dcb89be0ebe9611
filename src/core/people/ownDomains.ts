/** Addresses of an organisation's own domains. */

/** Whether an address lies at one of these domains, or below one. Letters count the same, small or large. */
export function ownAddress(mail: string, domains: readonly string[]): boolean {
  const domain = mail.slice(mail.lastIndexOf("@") + 1).toLowerCase();
  return domains.some((one) => domain === one.toLowerCase() || domain.endsWith(`.${one.toLowerCase()}`));
}
