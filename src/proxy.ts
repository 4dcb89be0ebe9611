import { type NextRequest, NextResponse } from "next/server";

/** A fresh nonce a page: no script runs that Galtry did not write. */
export function proxy(request: NextRequest): NextResponse {
  // A page of the identity provider loads it in a frame; it says itself whose.
  if (/^\/sso\/[^/]+\/logout$/.test(request.nextUrl.pathname)) return NextResponse.next();
  const nonce = btoa(crypto.randomUUID());
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  // Where a reader who has to sign in first goes on. Set here and nowhere else.
  const { pathname, searchParams } = request.nextUrl;
  searchParams.delete("_rsc");
  headers.set("x-galtry-page", `${pathname}${searchParams.size > 0 ? `?${searchParams}` : ""}`);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  if (process.env.GALTRY_PUBLIC_URL?.startsWith("https:"))
    response.headers.set("strict-transport-security", "max-age=31536000");
  // A handover link's key stands in its address: nothing of that page goes anywhere or is kept.
  const handover = request.nextUrl.pathname === "/handover";
  response.headers.set("referrer-policy", handover ? "no-referrer" : "same-origin");
  if (handover) response.headers.set("cache-control", "no-store");
  response.headers.set("cross-origin-opener-policy", "same-origin");
  response.headers.set("permissions-policy", "camera=(), microphone=(), geolocation=()");
  return response;
}

export const config = { matcher: [{ source: "/((?!_next/static|fonts/|api/|(?:healthz|readyz|metrics)$).*)" }] };
