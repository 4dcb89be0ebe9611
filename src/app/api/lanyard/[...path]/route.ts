import { lanyardRequest } from "@/server/lanyard/http";

export const dynamic = "force-dynamic";

type Context = { params: Promise<{ path: string[] }> };

export async function GET(request: Request, { params }: Context): Promise<Response> {
  return lanyardRequest(request, (await params).path);
}

export async function POST(request: Request, { params }: Context): Promise<Response> {
  return lanyardRequest(request, (await params).path);
}
