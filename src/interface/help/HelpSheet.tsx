"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import { useEffect, useState } from "react";
import { KeyLists } from "../frame/KeyLists";
import { runQuery } from "../shared/ask";
import { Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { HelpNote } from "./HelpNote";
import { type Reader, help as t } from "./strings";
import { TopicText } from "./TopicText";
import { topicAt } from "./topics";

/** Over any page: whom to ask, what this page is for, what people do here, and its keys. */
export default function HelpSheet({ reader, onClose }: { reader: Reader; onClose: () => void }) {
  const topic = topicAt(usePathname(), reader);
  const [note, setNote] = useState<string | null>(null);
  useEffect(() => {
    void runQuery("rules.helpNote", {}).then((answer) => setNote(answer.ok ? answer.result : ""));
  }, []);
  // All of it at once: what comes later would push down what is being read.
  if (note === null) return null;
  return (
    <Dialog title={topic ? `${t.help}: ${topic.title}` : t.help} open onClose={onClose}>
      <Stack>
        <HelpNote note={note} changes={reader === "administrator"} onChanged={setNote} />
        {topic && <TopicText topic={topic} reader={reader} />}
        <p>
          <Link href="/help" onClick={onClose}>
            {t.allHelp}
          </Link>
        </p>
        <KeyLists first={topic?.keys ?? null} />
      </Stack>
    </Dialog>
  );
}
