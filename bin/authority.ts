// The shop's own certificate authority: browsers allow offline pages, cameras and serial gauges on secure origins only, and no public
// authority signs for an address of a shop's own network. docs/decisions/0009.
import "reflect-metadata";
import { webcrypto } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { hostname, networkInterfaces } from "node:os";
import { join } from "node:path";
import { AsnConvert } from "@peculiar/asn1-schema";
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from "@peculiar/asn1-x509";
import {
  AuthorityKeyIdentifierExtension,
  BasicConstraintsExtension,
  cryptoProvider,
  Extension,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  X509Certificate,
  X509CertificateGenerator,
} from "@peculiar/x509";

cryptoProvider.set(webcrypto as unknown as Crypto);

export interface Tls {
  key: string;
  cert: string;
  /** The authority's certificate that a tablet must trust; null with the owner's own certificate. */
  authority: string | null;
}

const ALGORITHM = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" } as const;
const DAY = 86_400_000;
const AUTHORITY_DAYS = 3650;
/** Browsers refuse certificates that live longer. */
const SERVER_DAYS = 390;
const RENEW_DAYS = 30;

/** The names and addresses this machine is reached by on its own network. */
export function namesOfMachine(): string[] {
  const addresses = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ family, internal }) => family === "IPv4" && !internal)
    .map(({ address }) => address);
  return [...new Set([hostname(), `${hostname()}.local`, "localhost", "127.0.0.1", ...addresses])];
}

const serial = (): string =>
  Buffer.from(webcrypto.getRandomValues(new Uint8Array(16)))
    .toString("hex")
    .replace(/^[89a-f]/, "1");
const keyPair = (): Promise<CryptoKeyPair> =>
  webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"]);
const pemOf = async (key: CryptoKey): Promise<string> =>
  PemConverter.encode(await webcrypto.subtle.exportKey("pkcs8", key), "PRIVATE KEY");
const keyOf = (pem: string): Promise<CryptoKey> =>
  webcrypto.subtle.importKey("pkcs8", PemConverter.decodeFirst(pem), ALGORITHM, true, ["sign"]);

/**
 * The shop's authority and a certificate of it for this machine, made when they are missing, too old, or for other addresses.
 *
 * @param folder where both are kept; the keys only for the owner of the folder.
 */
export async function localTls(folder: string, names = namesOfMachine(), now = new Date()): Promise<Tls> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = (name: string): string => join(folder, name);
  const keep = (name: string, text: string): void => writeFileSync(file(name), text, { mode: 0o600 });
  const read = (name: string): string => readFileSync(file(name), "utf8");
  if (!existsSync(file("authority.crt")) || !existsSync(file("authority.key"))) {
    const made = await makeAuthority(names, now);
    keep("authority.key", made.key);
    keep("authority.crt", made.cert);
  }
  const authority = read("authority.crt");
  const wanted = names.join();
  const fresh =
    existsSync(file("server.crt")) &&
    existsSync(file("server.names")) &&
    read("server.names") === wanted &&
    new X509Certificate(read("server.crt")).notAfter.getTime() - now.getTime() > RENEW_DAYS * DAY;
  if (!fresh) {
    const made = await makeServer(authority, read("authority.key"), names, now);
    keep("server.key", made.key);
    keep("server.crt", made.cert);
    keep("server.names", wanted);
  }
  return { key: read("server.key"), cert: read("server.crt"), authority };
}

/** Networks nobody outside can have: those of a shop, this machine, and machines that gave themselves an address. */
const PRIVATE_NETWORKS = ["10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "127.0.0.0/8", "169.254.0.0/16"];
const PRIVATE_NAMES = ["local", "lan", "home.arpa", "internal", "localhost"];
const NAME_CONSTRAINTS = "2.5.29.30";

/**
 * What the authority may vouch for: names and addresses of a shop's own network, and those of this machine. Whoever got hold of its key could speak
 * for no one else to the tablets that trust it.
 */
function onlyPrivate(names: readonly string[]): Extension {
  const addresses = names.filter(isAddress).map((one) => `${one}/32`);
  const permitted = [
    ...[...PRIVATE_NETWORKS, ...addresses].map((iPAddress) => new GeneralName({ iPAddress })),
    ...[...PRIVATE_NAMES, ...names.filter((one) => !isAddress(one))].map(
      (name) => new GeneralName({ dNSName: name }),
    ),
  ].map((base) => new GeneralSubtree({ base }));
  const constraints = new NameConstraints({ permittedSubtrees: new GeneralSubtrees(permitted) });
  return new Extension(NAME_CONSTRAINTS, true, AsnConvert.serialize(constraints));
}

const isAddress = (name: string): boolean => /^\d+(\.\d+){3}$/.test(name);

async function makeAuthority(names: readonly string[], now: Date): Promise<{ key: string; cert: string }> {
  const keys = await keyPair();
  const certificate = await X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Yard Key shop authority ${now.toISOString().slice(0, 10)}`,
    notBefore: new Date(now.getTime() - DAY),
    notAfter: new Date(now.getTime() + AUTHORITY_DAYS * DAY),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      // It may sign servers and nothing that signs again.
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
      onlyPrivate(names),
    ],
  });
  return { key: await pemOf(keys.privateKey), cert: certificate.toString("pem") };
}

async function makeServer(
  authority: string,
  authorityKey: string,
  names: readonly string[],
  now: Date,
): Promise<{ key: string; cert: string }> {
  const issuer = new X509Certificate(authority);
  const keys = await keyPair();
  const certificate = await X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=Yard Key`,
    issuer: issuer.subject,
    notBefore: new Date(now.getTime() - DAY),
    notAfter: new Date(now.getTime() + SERVER_DAYS * DAY),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: await keyOf(authorityKey),
    extensions: [
      new BasicConstraintsExtension(false, undefined, true),
      new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
      new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
      new SubjectAlternativeNameExtension(
        names.map((value) => ({
          type: isAddress(value) ? ("ip" as const) : ("dns" as const),
          value,
        })),
      ),
      await AuthorityKeyIdentifierExtension.create(issuer.publicKey),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { key: await pemOf(keys.privateKey), cert: certificate.toString("pem") };
}

/** The owner's own certificate, named by `TLS_CERT` and `TLS_KEY`; null when neither is set. */
export function ownersTls(): Tls | null {
  const { TLS_CERT: cert = "", TLS_KEY: key = "" } = process.env;
  if (!cert && !key) return null;
  if (!cert || !key) throw new Error("TLS_CERT and TLS_KEY go together: both must name a file.");
  for (const file of [cert, key]) if (!existsSync(file)) throw new Error(`There is no file ${file}.`);
  return { cert: readFileSync(cert, "utf8"), key: readFileSync(key, "utf8"), authority: null };
}
