/** Failures of pages: logged with the reference of their request, which the server gave it, and the digest on the screen. */
import type { Instrumentation } from "next";

export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { REQUEST_ID } = await import("./server/requestId");
  const { unexpected } = await import("./server/log");
  const given = request.headers[REQUEST_ID];
  const { digest } = error as { digest?: string };
  unexpected(`page ${context.routePath}`, error, digest ?? (typeof given === "string" ? given : undefined));
};
