import { services } from "~/server/context";
import type { Route } from "./+types/authority";

/** The certificate of the shop's own authority, for a tablet to trust; nothing secret. */
export const loader = ({ context }: Route.LoaderArgs): Response => {
  const authority = context.get(services).https?.authority;
  if (!authority) return new Response("This shop has no authority of its own.", { status: 404 });
  return new Response(authority, {
    headers: {
      "Content-Type": "application/x-x509-ca-cert",
      "Content-Disposition": 'attachment; filename="yard-key-authority.crt"',
    },
  });
};
