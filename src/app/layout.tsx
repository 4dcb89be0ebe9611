import type { Metadata, Viewport } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { StyleRegistry } from "@/interface/theme/Registry";
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
  const house = await galtry();
  return (
    <html lang="en-GB" data-theme={theme === "light" || theme === "dark" ? theme : undefined}>
      <head>
        <meta name="galtry" content={house.configuration.publicUrl.origin} />
      </head>
      <body>
        <StyleRegistry>{children}</StyleRegistry>
      </body>
    </html>
  );
}
