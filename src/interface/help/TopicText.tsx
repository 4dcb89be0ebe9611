import styled from "styled-components";
import { PICTURE, type Reader, type Topic } from "./strings";
import { whatFor } from "./topics";

const Things = styled.ul`
  margin-top: 8px;
  li { padding: 5px 0 5px 16px; position: relative; line-height: 22px; overflow-wrap: anywhere; }
  li::before { content: ""; position: absolute; left: 0; top: 14px; width: 7px; border-top: 2px solid var(--edge); }
`;

const Picture = styled.img`
  display: block;
  width: 100%;
  height: auto;
  margin: 12px 0 4px;
  border: 1px solid var(--edge);
  border-radius: 5px;
`;

/** What a page is for, and what people do there. */
export function TopicText({ topic, reader }: { topic: Topic; reader: Reader }) {
  return (
    <>
      <p>{whatFor(topic, reader)}</p>
      <Things>
        {topic.things.map((thing) => (
          <li key={thing}>{thing}</li>
        ))}
      </Things>
      {topic.picture && <Picture src={`/help/${topic.id}.webp`} alt={topic.picture} {...PICTURE} loading="lazy" />}
    </>
  );
}
