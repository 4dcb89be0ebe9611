import { answering } from "@/server/http";
import { acsAt, backChannelAt, beginAt, frontChannelAt, metadataAt, returnAt, startAt } from "@/server/provider/http";
import { Refused } from "@/server/refused";

type Handler = (request: Request, providerId: string) => Promise<Response>;

const GETS: Record<string, Handler> = {
  start: startAt,
  return: returnAt,
  metadata: metadataAt,
  logout: frontChannelAt,
};
const POSTS: Record<string, Handler> = {
  start: startAt,
  begin: beginAt,
  return: returnAt,
  acs: acsAt,
  logout: backChannelAt,
};

type Route = { params: Promise<{ provider: string; act: string }> };

const by =
  (handlers: Record<string, Handler>) =>
  (request: Request, { params }: Route): Promise<Response> =>
    answering(request, async () => {
      const { provider, act } = await params;
      const handler = Object.hasOwn(handlers, act) ? handlers[act] : undefined;
      if (!handler || provider.length > 60) throw new Refused("not-found", "There is nothing at this address.");
      return handler(request, provider);
    });

export const GET = by(GETS);
export const POST = by(POSTS);
