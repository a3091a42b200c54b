import { createCookie, redirect, type MiddlewareFunction, type RouterContextProvider } from "react-router";
import { LEFT } from "~/door/left";
import { endSession, sessionStaff, type Role, type Staff } from "~store/staff";
import { services, signedIn } from "./context";

type Context = Readonly<RouterContextProvider>;

const isSecure = (request: Request): boolean => new URL(request.url).protocol === "https:";

/** The cookie a session is kept in. Under https no page of another name, nor one over http, can set one of this name. */
export const sessionCookie = (key: string, secure: boolean) =>
  createCookie(secure ? "__Host-yard-key" : "yard-key", {
    httpOnly: true,
    sameSite: "lax",
    path: "/",
    secure,
    secrets: [key],
  });

const cookieFor = (context: Context, request: Request) =>
  sessionCookie(context.get(services).cookieKey, isSecure(request));

/** What a browser is told when somebody signs in: its session, and that nobody has left. */
export async function sealSession(context: Context, request: Request, sessionId: string): Promise<Headers> {
  const headers = new Headers();
  headers.append("Set-Cookie", await cookieFor(context, request).serialize(sessionId));
  headers.append("Set-Cookie", `${LEFT}=; Path=/; Max-Age=0; SameSite=Lax`);
  return headers;
}

export const clearSession = (context: Context, request: Request): Promise<string> =>
  cookieFor(context, request).serialize("", { maxAge: 0 });

/** The session a request’s cookie names, whether it still holds or not; null where it names none of ours. */
export async function sessionIdOf(context: Context, request: Request): Promise<string | null> {
  const sessionId: unknown = await cookieFor(context, request).parse(request.headers.get("cookie"));
  return typeof sessionId === "string" && sessionId !== "" ? sessionId : null;
}

const HAS_LEFT = new RegExp(`(^|;\\s*)${LEFT}=1(;|$)`);

export async function sessionOf(
  context: Context,
  request: Request,
): Promise<{ staff: Staff; sessionId: string } | null> {
  const sessionId = await sessionIdOf(context, request);
  if (sessionId === null) return null;
  // Signed out while the server was away: it is done now.
  if (HAS_LEFT.test(request.headers.get("cookie") ?? "")) {
    await endSession(context.get(services).pool, sessionId);
    return null;
  }
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
