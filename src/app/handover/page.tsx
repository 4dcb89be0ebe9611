import { EachLink } from "@/interface/entrance/EachLink";
import { Handover } from "@/interface/entrance/Handover";

export const metadata = { title: "Handover link", robots: { index: false, follow: false } };

export default function HandoverPage() {
  return (
    <EachLink>
      <Handover />
    </EachLink>
  );
}
