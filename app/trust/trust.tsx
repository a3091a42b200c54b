import { X509Certificate } from "node:crypto";
import { networkInterfaces } from "node:os";
import type { Route } from "./+types/trust";
import { Qr } from "~/look/qr";
import { services } from "~/server/context";

export const meta: Route.MetaFunction = () => [{ title: "Trust this shop’s Yard Key" }];

/** Where the shop's machines reach this one, and what they have to trust for it. */
export const loader = ({ context, request }: Route.LoaderArgs) => {
  const { https } = context.get(services);
  if (!https)
    throw new Response("This Yard Key serves this machine alone; npm start serves the shop’s network.", {
      status: 404,
    });
  const asked = new URL(`http://${request.headers.get("host") ?? "localhost"}`).hostname;
  const own = Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .find(({ family, internal }) => family === "IPv4" && !internal)?.address;
  const host = /^(localhost|127\.)/.test(asked) ? (own ?? asked) : asked;
  return {
    secure: `https://${host}:${https.port}`,
    here: `http://${host}:${https.httpPort}/trust`,
    fingerprint: https.authority ? new X509Certificate(https.authority).fingerprint256 : null,
  };
};

/** How a tablet learns to trust the shop's server: read on the office PC, done on the tablet. */
export default function Trust({ loaderData: { secure, here, fingerprint } }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-4xl p-6">
      <h1 className="mb-2 text-3xl font-bold">Bring a tablet to this bench</h1>
      <p className="mb-4 text-lg">
        A tablet works without the network, uses its camera and reads a serial gauge only over a connection it
        trusts.
      </p>
      <div className="plate grid grid-cols-[auto_1fr] gap-6 p-5">
        <Qr text={fingerprint ? here : secure} className="size-52 rounded" />
        <ol className="list-decimal space-y-2 pl-6 text-lg">
          <li>
            Be in the shop’s own network. Scan the code, or open{" "}
            <b className="break-all">{fingerprint ? here : secure}</b>.
          </li>
          {fingerprint && (
            <>
              <li>
                <a className="btn btn-primary touch" href="/trust/authority.crt" download>
                  Fetch the shop’s certificate
                </a>
              </li>
              <li>
                In the tablet’s settings, under security or certificates, install it as an{" "}
                <b>authority (CA)</b>. Some ask a second time: under general, about, certificates, switch on
                full trust for it.
              </li>
              <li>
                Compare its fingerprint before you trust it:
                <code className="bg-base-200 mt-1 block rounded p-2 text-sm break-all">{fingerprint}</code>
              </li>
            </>
          )}
          <li>
            Open{" "}
            <a className="link font-semibold break-all" href={secure}>
              {secure}
            </a>{" "}
            and install Yard Key from the browser’s menu: add to home screen.
          </li>
        </ol>
      </div>
      {fingerprint && (
        <p className="quiet mt-3">
          The certificate is made on this machine, for this shop alone; its key never leaves it. Take it off a
          tablet that leaves the shop. An owner with a certificate of their own names it with TLS_CERT and
          TLS_KEY.
        </p>
      )}
    </main>
  );
}
