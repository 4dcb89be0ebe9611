/** Why Galtry does not start: one line for the terminal. */
export class StartError extends Error {
  override name = "StartError";
}
