/** What a telephone reads from a QR code to join a Wi-Fi network: the text that WPA3's specification (7.1) registers. */

export interface WifiNetwork {
  network: string;
  /** As the kind Wi-Fi has it. */
  security: string;
  hidden: boolean;
  password: string;
}

const escaped = (text: string) => text.replace(/[\\;,":]/g, "\\$&");

export function wifiText({ network, security, hidden, password }: WifiNetwork): string {
  const open = security === "none" || password === "";
  const type = open ? "nopass" : security === "WEP" ? "WEP" : "WPA";
  return `WIFI:T:${type};S:${escaped(network)};${open ? "" : `P:${escaped(password)};`}${hidden ? "H:true;" : ""};`;
}
