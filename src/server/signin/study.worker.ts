/** Reads strangers' pages beside the server's own thread, which goes on answering whatever they are made of. */
import { answerAsks } from "../workerThread";
import { studyPage } from "./studiedPage";

answerAsks(studyPage);
