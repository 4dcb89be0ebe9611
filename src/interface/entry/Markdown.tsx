import ReactMarkdown from "react-markdown";
import styled from "styled-components";

const Text = styled.div`
  overflow-wrap: anywhere;
  > * + * { margin-top: 8px; }
  ul { padding-left: 20px; list-style: disc; }
  ol { padding-left: 20px; list-style: decimal; }
  h3 { font: 650 16px/24px var(--text); }
  code { font-family: var(--mono); font-size: 14px; }
  pre { overflow-x: auto; padding: 8px 12px; background: var(--lit); }
  blockquote { padding-left: 12px; border-left: 3px solid var(--rule); }
`;

/** Elements that notes may have: nothing that loads, runs or breaks out of its place. */
const ALLOWED = ["p", "strong", "em", "del", "ul", "ol", "li", "code", "pre", "blockquote", "a", "h3", "br", "hr"];

/** Notes with simple formatting (CommonMark). HTML in them is text; pictures are not fetched; line ends stay. */
export function Markdown({ text }: { text: string }) {
  return (
    <Text>
      <ReactMarkdown
        allowedElements={ALLOWED}
        unwrapDisallowed
        components={{
          a: ({ href, children }) =>
            href && /^(https?|mailto|tel):/i.test(href) ? (
              <a href={href} rel="noreferrer noopener" target="_blank">
                {children}
              </a>
            ) : (
              children
            ),
        }}
      >
        {withLineEnds(text)}
      </ReactMarkdown>
    </Text>
  );
}

/** People who write line after line mean lines; headings of any depth are one. */
const withLineEnds = (text: string): string =>
  text
    .split("\n")
    .map((line) => (/^#{1,6}\s/.test(line) ? line.replace(/^#+/, "###") : line))
    .map((line) => (line.trim() === "" || /^\s*([-*+>#]|\d+[.)]|```)/.test(line) ? line : `${line}  `))
    .join("\n");
