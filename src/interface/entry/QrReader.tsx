"use client";

import { useRef, useState } from "react";
import { Button } from "../shared/controls";
import { qrReader as t } from "./strings";

/** Reads an otpauth address from a picture of a QR code, in this browser: the picture is sent nowhere. */
export function QrReader({ onRead }: { onRead: (text: string) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [says, setSays] = useState<string | null>(null);
  const read = async (file: File) => {
    setSays(t.readingThePicture);
    try {
      const [{ default: jsqr }, bitmap] = await Promise.all([import("jsqr"), createImageBitmap(file)]);
      const canvas = document.createElement("canvas");
      const scale = Math.min(1, 1600 / Math.max(bitmap.width, bitmap.height));
      canvas.width = Math.round(bitmap.width * scale);
      canvas.height = Math.round(bitmap.height * scale);
      const context = canvas.getContext("2d")!;
      context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      const pixels = context.getImageData(0, 0, canvas.width, canvas.height);
      const found = jsqr(pixels.data, pixels.width, pixels.height)?.data;
      if (!found) return setSays(t.thereIsNoQrCodeInThis);
      if (!found.startsWith("otpauth:")) return setSays(t.thisQrCodeHoldsSomethingOther);
      onRead(found);
      setSays("Read.");
    } catch {
      setSays(t.thisPictureCannotBeRead);
    }
  };
  return (
    <>
      <Button onPress={() => input.current?.click()}>{t.readAQrPicture}</Button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        hidden
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void read(file);
          event.target.value = "";
        }}
      />
      <span role="status" className="small soft">
        {says}
      </span>
    </>
  );
}
