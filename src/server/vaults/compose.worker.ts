/** Composes and seals what is brought in beside the server's own thread, which goes on answering. */
import { answerAsks } from "../workerThread";
import { composeRows } from "./composingRows";

answerAsks(composeRows);
