"use client";

import { useEffect, useState } from "react";
import styled from "styled-components";
import { spellingCard } from "@/core/spelling";
import { Button, Row } from "../shared/controls";
import { spellingCard as t } from "./strings";

const Card = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  border-top: 3px solid var(--ink);
  border-bottom: 1px solid var(--edge);
  > div { padding: 14px 4px 10px; text-align: center; }
  > div + div { border-left: 1px solid var(--rule); }
  .character { display: block; font: 400 38px/48px var(--mono); white-space: pre; }
  .character[data-sort="digit"] { text-decoration: underline 2px; text-underline-offset: 6px; }
  .name { color: var(--soft); font-size: 13.5px; line-height: 18px; overflow-wrap: anywhere; }
`;

/** Four characters at a time, with what one says for each; digits are underlined. Arrow keys turn the card. */
export function SpellingCard({ text }: { text: string }) {
  const groups = spellingCard(text);
  const [at, setAt] = useState(0);
  const group = groups[at]!;
  const last = at === groups.length - 1;
  const turn = (by: number) => setAt((now) => Math.min(groups.length - 1, Math.max(0, now + by)));
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (event.key === "ArrowRight") setAt((now) => Math.min(groups.length - 1, now + 1));
      if (event.key === "ArrowLeft") setAt((now) => Math.max(0, now - 1));
    };
    addEventListener("keydown", key);
    return () => removeEventListener("keydown", key);
  }, [groups.length]);
  const voice = useVoiceOfThisDevice();
  const say = () => {
    speechSynthesis.cancel();
    const words = new SpeechSynthesisUtterance(group.map((one) => one.name).join(", "));
    words.voice = voice;
    words.lang = voice!.lang;
    words.rate = 0.8;
    speechSynthesis.speak(words);
  };
  return (
    <div>
      <p className="small soft" style={{ marginBottom: 8 }} aria-live="polite">
        {t.ofWord(at + 1, groups.length)}
      </p>
      <Card>
        {group.map((one, i) => (
          <div key={`${at}-${i}-${one.name}`}>
            <span className="character" data-sort={one.sort}>
              {one.character === " " ? "␣" : one.character}
            </span>
            <span className="name">{one.name}</span>
          </div>
        ))}
      </Card>
      <Row style={{ marginTop: 14 }}>
        {/* Never switched off: the focus would be lost with it, and with the focus the keys. */}
        <Button onPress={() => turn(-1)}>{t.back}</Button>
        <Button look="go" onPress={() => (last ? setAt(0) : turn(1))} autoFocus>
          {last ? t.startAgain : t.next}
        </Button>
        {voice && <Button onPress={say}>{t.readAloud}</Button>}
      </Row>
    </div>
  );
}

/** An English voice that speaks on this device: others send what they say to a service on the net. */
function useVoiceOfThisDevice(): SpeechSynthesisVoice | null {
  const [voice, setVoice] = useState<SpeechSynthesisVoice | null>(null);
  useEffect(() => {
    if (!("speechSynthesis" in window)) return;
    const look = () => {
      const own = speechSynthesis.getVoices().filter((one) => one.localService && one.lang.startsWith("en"));
      setVoice(own.find((one) => one.lang === "en-GB") ?? own[0] ?? null);
    };
    look();
    speechSynthesis.addEventListener("voiceschanged", look);
    return () => {
      speechSynthesis.removeEventListener("voiceschanged", look);
      // What is being read aloud stops with the card.
      speechSynthesis.cancel();
    };
  }, []);
  return voice;
}
