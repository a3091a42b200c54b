import { hostname } from "node:os";
import { isIP } from "node:net";

/** Endings nobody outside can be given: a name with one of them was made on the shop’s own network. */
const PRIVATE = /(^|\.)(localhost|local|lan|home\.arpa|internal)$/;

/**
 * Whether a request's `Host` is this server: an address, a name without a dot or with a private ending, this machine's own, or one that its owner
 * gave it. Any other may be a stranger's that was turned to this address, with a page of theirs that takes us for itself.
 *
 * @param host as it came, with or without its port.
 * @param own further names, as `HOSTS` gives them.
 */
export function isOwnHost(host: string, own: readonly string[]): boolean {
  const given = `http://${host}`;
  if (host === "" || /[/?#@\\\s]/.test(host) || !URL.canParse(given)) return false;
  const name = new URL(given).hostname.toLowerCase().replace(/\.$/, "");
  if (isIP(name.replace(/^\[|\]$/g, "")) !== 0) return true;
  return (
    !name.includes(".") ||
    PRIVATE.test(name) ||
    name === hostname().toLowerCase() ||
    own.some((one) => one.toLowerCase() === name)
  );
}
