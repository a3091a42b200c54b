import { KEPT } from "~/offline/keys";
import { type ReactNode, use } from "react";
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useRouteLoaderData,
} from "react-router";
import type { Route } from "./+types/root";
import "./app.css";
import { NonceContext } from "./look/nonce";
import { readLook } from "./look/look-cookie";
import { skipTabChanges } from "./look/revalidate";
import { Away } from "./look/away";
import { loadOrKept } from "./offline/kept";

export const links: Route.LinksFunction = () => [
  { rel: "icon", href: "/favicon.svg", type: "image/svg+xml" },
  { rel: "manifest", href: "/yard-key.webmanifest" },
  { rel: "apple-touch-icon", href: "/icon-192.png" },
];
export const meta: Route.MetaFunction = () => [{ title: "Yard Key" }];

export const loader = ({ request }: Route.LoaderArgs) => readLook(request.headers.get("cookie"));

export const clientLoader = ({ serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.look, serverLoader, () => readLook(document.cookie));

export const shouldRevalidate = skipTabChanges;

export function Layout({ children }: { children: ReactNode }) {
  const nonce = use(NonceContext);
  const look = useRouteLoaderData<typeof loader>("root");
  return (
    <html lang="en" data-theme={look?.theme}>
      <head>
        <meta charSet="utf-8" />
        <meta name="theme-color" content="#262e38" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body className="text-base-content font-sans">
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  if (!isRouteErrorResponse(error)) return <Away />;
  const [title, what] =
    error.status === 404
      ? ["Not here", "Nothing is kept under this address. It may have been typed wrong."]
      : error.status === 403
        ? ["Not yours to do", typeof error.data === "string" ? error.data : "Ask a lead."]
        : [
            "That did not work",
            typeof error.data === "string" && error.data ? error.data : "Nothing was changed. Try again.",
          ];
  return (
    <main className="mx-auto mt-24 max-w-xl p-6">
      <h1 className="mb-2 text-3xl font-bold">{title}</h1>
      <p className="mb-6 text-lg">{what}</p>
      <a className="btn btn-primary touch" href="/">
        To the jobs
      </a>
    </main>
  );
}
