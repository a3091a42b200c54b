import { createCookie, redirect, type MiddlewareFunction, type RouterContextProvider } from "react-router";
import { sessionStaff, type Role, type Staff } from "~store/staff";
import { services, signedIn } from "./context";

type Context = Readonly<RouterContextProvider>;

const cookieFor = (context: Context, request: Request) =>
  createCookie("yard-key", {
    httpOnly: true,
    sameSite: "lax",
    path: "/",
    secure: new URL(request.url).protocol === "https:",
    secrets: [context.get(services).cookieKey],
  });

export const sealSession = (context: Context, request: Request, sessionId: string): Promise<string> =>
  cookieFor(context, request).serialize(sessionId);

export const clearSession = (context: Context, request: Request): Promise<string> =>
  cookieFor(context, request).serialize("", { maxAge: 0 });

export async function sessionOf(
  context: Context,
  request: Request,
): Promise<{ staff: Staff; sessionId: string } | null> {
  const sessionId: unknown = await cookieFor(context, request).parse(request.headers.get("cookie"));
  if (typeof sessionId !== "string" || sessionId === "") return null;
  const staff = await sessionStaff(context.get(services).pool, sessionId);
  return staff ? { staff, sessionId } : null;
}

/** The door: everything inside needs somebody signed in. What sends facts in the background gets 401, a page is led to sign in. */
export const requireSignIn: MiddlewareFunction<Response> = async ({ request, context }) => {
  const who = await sessionOf(context, request);
  if (who) {
    context.set(signedIn, who);
    return;
  }
  const url = new URL(request.url);
  if (request.headers.get("accept")?.includes("application/json"))
    throw Response.json({ problem: "sign in again" }, { status: 401 });
  const from = url.pathname.replace(/\.data$/, "");
  throw redirect(from === "/" || from === "/_root" ? "/sign-in" : `/sign-in?to=${encodeURIComponent(from)}`);
};

/** @throws a 403 response unless the person signed in has one of the roles. */
export function mustBe(context: Context, ...roles: Role[]): Staff {
  const { staff } = context.get(signedIn);
  if (!roles.includes(staff.role))
    throw new Response(`Only ${roles.join(" or ")} may do this.`, { status: 403 });
  return staff;
}
