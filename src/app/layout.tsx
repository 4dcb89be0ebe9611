import type { Metadata, Viewport } from "next";
import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import { HOLD_LINK } from "@/interface/entrance/takeLink";
import { EARLY_PRESSES } from "@/interface/shared/early";
import { TakenOver } from "@/interface/shared/TakenOver";
import { StyleRegistry } from "@/interface/theme/Registry";
import { FONT_FILES, fontFaces } from "@/interface/theme/tokens";
import { galtry } from "@/server/galtry";

export const metadata: Metadata = {
  title: { default: "Galtry", template: "%s · Galtry" },
  referrer: "same-origin",
  robots: "noindex",
};
export const viewport: Viewport = { width: "device-width", initialScale: 1, colorScheme: "light dark" };
export const dynamic = "force-dynamic";

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get("galtry_theme")?.value;
  const nonce = (await headers()).get("x-nonce") ?? undefined;
  const app = await galtry();
  return (
    <html lang="en-GB" data-theme={theme === "light" || theme === "dark" ? theme : undefined}>
      <head>
        <meta name="galtry" content={app.configuration.publicUrl.origin} />
        {/* Asked for at once and never again in the page: what is styled later would let them go and take them anew. */}
        {FONT_FILES.map((file) => (
          <link key={file} rel="preload" href={`/fonts/${file}`} as="font" type="font/woff2" crossOrigin="anonymous" />
        ))}
        <style dangerouslySetInnerHTML={{ __html: fontFaces("/fonts", "optional") }} />
        {/* Browsers hide a nonce from scripts: what is there differs from what was sent. */}
        <script
          nonce={nonce}
          suppressHydrationWarning
          dangerouslySetInnerHTML={{ __html: HOLD_LINK + EARLY_PRESSES }}
        />
      </head>
      <body>
        <StyleRegistry>{children}</StyleRegistry>
        <TakenOver />
      </body>
    </html>
  );
}
