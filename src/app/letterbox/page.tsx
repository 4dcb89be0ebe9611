import { EachLink } from "@/interface/entrance/EachLink";
import { Letterbox } from "@/interface/entrance/Letterbox";

export const metadata = { title: "Letterbox", robots: { index: false, follow: false } };

export default function LetterboxPage() {
  return (
    <EachLink>
      <Letterbox />
    </EachLink>
  );
}
