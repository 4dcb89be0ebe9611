import { Letterbox } from "@/interface/entrance/Letterbox";

export const metadata = { title: "Letterbox", robots: { index: false, follow: false } };

export default function LetterboxPage() {
  return <Letterbox />;
}
