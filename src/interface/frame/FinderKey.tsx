"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";
import styled from "styled-components";

const Key = styled.button`
  display: flex;
  align-items: center;
  gap: 10px;
  height: var(--control);
  padding: 0 10px 0 12px;
  border: 1px solid var(--baize-edge);
  border-radius: var(--corner);
  background: none;
  color: inherit;
  font: 14px/20px var(--text);
  cursor: pointer;
  kbd { padding: 0 5px; border: 1px solid; border-radius: 3px; font: 12px/18px var(--mono); }
  @media (max-width: 719px) { kbd { display: none; } }
`;

/** `/` goes to the finder from anywhere, unless one is typing. */
export function FinderKey() {
  const router = useRouter();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (
        event.key !== "/" ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
        target.isContentEditable
      )
        return;
      event.preventDefault();
      router.push("/");
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [router]);
  return (
    <Key type="button" onClick={() => router.push("/")}>
      Find <kbd>/</kbd>
    </Key>
  );
}
