"use client";

import { useState } from "react";
import styled from "styled-components";
import { Band } from "../entrance/Entrance";
import { HelpNote } from "./HelpNote";
import { help as h, PUBLIC_TOPICS, type Reader, type Topic } from "./strings";
import { TopicText } from "./TopicText";
import { topicsFor } from "./topics";

const Main = styled.main`
  width: 100%;
  max-width: 820px;
  margin-inline: auto;
  padding: 28px 16px 64px;
  h1 { margin-bottom: 16px; }
  h2 { margin: 32px 0 4px; padding-bottom: 6px; border-bottom: 3px double var(--edge); }
  section[id] { padding: 14px 0; border-bottom: 1px solid var(--rule); scroll-margin-top: 12px; }
  section:target { background: var(--pick); }
  h3 { margin-bottom: 4px; font-size: 17px; }
`;

interface HelpProps {
  organisation: string | null;
  note: string;
  /** Null before one is signed in: then only what helps to get in is here. */
  reader: Reader | null;
}

/** All of help on one page; how to get in can be read without being in. */
export function HelpPage({ organisation, note: start, reader }: HelpProps) {
  const [note, setNote] = useState(start);
  const part = (topic: Topic) => (
    <section key={topic.id} id={topic.id} aria-label={topic.title}>
      <h3>{topic.title}</h3>
      <TopicText topic={topic} reader={reader ?? "colleague"} />
    </section>
  );
  return (
    <>
      <Band>
        {h.galtry}
        {organisation && <span>{organisation}</span>}
        <a href={reader ? "/" : "/sign-in"}>{reader ? h.toTheFrontDesk : h.toSignIn}</a>
      </Band>
      <Main>
        <h1>{h.galtryHelp}</h1>
        <HelpNote note={note} changes={reader === "administrator"} onChanged={setNote} />
        <h2>{h.beforeYouAreIn}</h2>
        {PUBLIC_TOPICS.map(part)}
        {reader && (
          <>
            <h2>{h.onceYouAreIn}</h2>
            {topicsFor(reader).map(part)}
          </>
        )}
      </Main>
    </>
  );
}
