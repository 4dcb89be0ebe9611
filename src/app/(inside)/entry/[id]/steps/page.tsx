import { StepsPage } from "@/interface/entry/StepsPage";
import { ask } from "@/server/page";
import { stepsPage } from "@/server/vaults/steps";

export const metadata = { title: "Sign-in steps" };

export default async function EntryStepsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <StepsPage view={await ask(stepsPage, { entryId: id })} now={Date.now()} />;
}
