import { scimAt } from "@/server/provider/scim/http";

type Route = { params: Promise<{ path?: string[] }> };

const handle = async (request: Request, { params }: Route): Promise<Response> =>
  scimAt(request, (await params).path ?? []);

export { handle as DELETE, handle as GET, handle as PATCH, handle as POST, handle as PUT };
