/** A process that draws pictures one after another, and can be ended at any moment. */
import { drawPicture } from "./drawPicture";

process.on("message", async (bytes: Uint8Array) => {
  process.send!(await drawPicture(bytes));
});
process.on("disconnect", () => process.exit());
